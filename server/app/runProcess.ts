import { type Configuration, readConfiguration } from '../platform/configuration'
import type { Running } from './start'

/** Runs a process of the house until it is told to stop. */
export async function runProcess(begin: (configuration: Configuration) => Promise<Running>): Promise<void> {
  try {
    const running = await begin(readConfiguration(process.env))
    process.send?.({ listening: running.address })
    const stop = (): void => {
      setTimeout(() => process.exit(0), 5_000).unref()
      void running.stop().finally(() => process.exit(0))
    }
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, stop)
    // Started by a script that is gone: without it nobody would end this process.
    process.once('disconnect', stop)
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException
    console.error(
      code === 'EADDRINUSE'
        ? `Port ${process.env.PORT ?? 4310} is taken by another program. Stop that, or choose another port: PORT=4320.`
        : `Lake Letter could not start. ${message}`,
    )
    process.exit(1)
  }
}
