import { Op, type Sequelize, type Transaction } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type { Clock } from '../clock'
import { Job } from './models'

export type JobHandler = (payload: Record<string, string>) => Promise<void>

export interface Jobs {
  handle(kind: string, handler: JobHandler): void
  /** Puts a job on the list; inside a transaction it is there when that is committed, or not at all. */
  add(kind: string, payload: Record<string, string>, transaction?: Transaction): Promise<void>
  /** Takes and runs one job; false where none was due. */
  runNext(): Promise<boolean>
  start(): void
  stop(): Promise<void>
}

const holdMs = 60_000
const mostAttempts = 5
const pollMs = 500

/**
 * Durable jobs: rows that any process takes with a row lock and holds for a minute at a time, renewed while it
 * works, so that a job survives the process that ran it. A job that fails is tried five times, ever later.
 */
export function createJobs(database: Sequelize, clock: Clock, report: (error: unknown) => void): Jobs {
  const handlers = new Map<string, JobHandler>()
  let timer: NodeJS.Timeout | undefined
  let running: Promise<unknown> = Promise.resolve()

  async function take(): Promise<Job | null> {
    const now = clock.now()
    return database.transaction(async transaction => {
      const job = await Job.findOne({
        where: {
          state: 'open',
          kind: [...handlers.keys()],
          runAfter: { [Op.lte]: now },
          heldUntil: { [Op.or]: [{ [Op.is]: null }, { [Op.lt]: now }] },
        },
        order: [['runAfter', 'ASC']],
        lock: true,
        skipLocked: true,
        transaction,
      })
      return job?.update({ heldUntil: new Date(+now + holdMs), attempts: job.attempts + 1 }, { transaction }) ?? null
    })
  }

  async function runNext(): Promise<boolean> {
    const job = await take()
    if (!job) return false
    const renew = setInterval(() => void job.update({ heldUntil: new Date(+clock.now() + holdMs) }).catch(report), holdMs / 3)
    try {
      await handlers.get(job.kind)!(job.payload)
      await job.update({ state: 'done', heldUntil: null })
    } catch (error) {
      report(error)
      await job.update({
        state: job.attempts >= mostAttempts ? 'failed' : 'open',
        heldUntil: null,
        runAfter: new Date(+clock.now() + 1000 * 4 ** job.attempts),
        error: String(error),
      })
    } finally {
      clearInterval(renew)
    }
    return true
  }

  async function runAll(): Promise<void> {
    try {
      while (timer && await runNext());
    } catch (error) {
      report(error)
    }
    if (timer) timer = setTimeout(poll, pollMs)
  }
  const poll = (): void => { running = runAll() }

  return {
    handle: (kind, handler) => void handlers.set(kind, handler),
    async add(kind, payload, transaction) {
      const now = clock.now()
      await Job.create({ id: uuidV7(), kind, payload, runAfter: now, createdAt: now }, { transaction })
    },
    runNext,
    start() {
      timer = setTimeout(poll, 0)
    },
    async stop() {
      clearTimeout(timer)
      timer = undefined
      await running
    },
  }
}
