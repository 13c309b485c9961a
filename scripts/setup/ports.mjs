import { createServer } from 'node:net'
import { Halt } from './halt.mjs'

const tryPort = port =>
  new Promise((resolve, reject) => {
    const server = createServer().once('error', reject)
    server.listen(port, '127.0.0.1', () => {
      const { port: given } = server.address()
      server.close(() => resolve(given))
    })
  })

/** A port of loopback that nothing listens on. */
export const freePort = () => tryPort(0)

/** Throws a Halt where a program listens on the port already. */
export async function needPort(port, variable, command) {
  await tryPort(port).catch(error => {
    if (error.code !== 'EADDRINUSE')
      throw new Halt(
        `Port ${port} cannot be opened (${error.code}); choose another: ${variable}=${port + 10} ${command}`,
      )
    throw new Halt(
      `Port ${port} is taken by another program; stop that, or choose another port: ${variable}=${port + 10} ${command}`,
    )
  })
}
