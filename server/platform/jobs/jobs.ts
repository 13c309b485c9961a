import { availableParallelism } from 'node:os'
import { IndexHints, Op, QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type { Clock } from '../clock'
import type { Events } from '../events/events'
import type { Columns } from '../database/columns'
import { transact } from '../database/transact'
import { type JobDefinition, type JobKind, type JobList, type JobRun, type Lane, type Payloads } from './kinds'
import { Job } from './models'

/** A job to be put on the list. */
export type NewJob = { [Kind in JobKind]: { kind: Kind; payload: Payloads[Kind] } & Circumstances }[JobKind]

interface Circumstances {
  /** What it works on, and the show of that: whoever looks at it hears how far it is. */
  subject?: string
  showId?: string
  /** Not before so long from now. */
  afterMs?: number
  /** How long the sound is that it works on: a shorter one goes before one that came a little earlier. */
  soundMs?: number
}

export interface Jobs {
  /** Says what is done for the jobs; what is not named is left to other processes. */
  use(list: Partial<JobList>): void
  /** Puts a job on the list; inside a transaction it is there when that is committed, or not at all. */
  add(job: NewJob, transaction?: Transaction): Promise<void>
  /** Puts jobs on the list, but those of which one of the kind for the same subject waits there that has not begun. */
  addOnce(wanted: readonly (NewJob & { subject: string })[], transaction: Transaction): Promise<void>
  /** Takes the open jobs of a kind for a subject off the list; one that runs is stopped within a second. */
  cancel(kind: JobKind, subject: string, transaction?: Transaction): Promise<void>
  /** The newest open job for a subject. */
  openFor(subject: string, transaction?: Transaction): Promise<Job | null>
  /** Takes and runs one job of a lane; false where none was due. */
  runNext(lane: Lane): Promise<boolean>
  /** Lets nothing of a lane begin in this process until the answer is called: something there is more urgent. */
  hold(lane: Lane): () => void
  start(): void
  stop(): Promise<void>
}

const holdMs = 15_000
const noteMs = 1_000
const mostFailures = 5
/** More than that of failures: a process that ends is far oftener stopped from outside than by what it was doing. */
const mostAttempts = 8
const pollMs = 500
const usualLimitMs = 5 * 60_000
/** What works on long sound lets what came so much later go first, and nothing that came later than that. */
const patienceMs = (soundMs: number): number => Math.min(soundMs / 12, 5 * 60_000)
/** Work on sound keeps a core busy; two at once leave no short one behind a long one. */
const ofSound = Math.min(2, availableParallelism())
/** What is outside may be slow to answer, and keeps nothing busy meanwhile. */
const widths: Partial<Record<Lane, number>> = { reading: ofSound, measuring: ofSound, finishing: ofSound, network: 8 }
const widthOf = (lane: Lane): number => widths[lane] ?? 1
/** Of the jobs that are due, how many are tried for one that no other process takes meanwhile. */
const mostTried = 20

/**
 * Durable jobs: rows that any process takes with a row lock and holds for a quarter of a minute at a time, renewed
 * each second, so that a job survives the process that ran it and is soon taken up by another. Whose turn it is follows
 * from when it was put on the list and how long it takes. A job that fails is tried five times, ever later. Tries are
 * counted from their beginning, too, and those that end with their process come ever later as well, so that a job that
 * kills its process does not come back for ever, and some minutes of a server that is killed again and again use no
 * job's tries up.
 */
export function createJobs(database: Sequelize, clock: Clock, events: Events, report: (error: unknown) => void): Jobs {
  let list: Readonly<Record<string, JobDefinition<unknown> | undefined>> = {}
  const busy = new Map<Lane, Set<Promise<void>>>()
  const held = new Set<Lane>()
  let isRunning = false
  let timer: NodeJS.Timeout | undefined
  let looking: Promise<void> = Promise.resolve()
  let stopping = new AbortController()
  /** The clock where it was latest: turns go forward where it is set back. */
  let turnMs = 0

  async function take(lane: Lane): Promise<Job | null> {
    const now = clock.now()
    const isDue = {
      state: 'open' as const,
      runAfter: { [Op.lte]: now },
      heldUntil: { [Op.or]: [{ [Op.is]: null }, { [Op.lt]: now }] },
    }
    const kinds = Object.keys(list).filter(kind => list[kind]?.lane === lane)
    // Put in order without a lock: else all that are due would be locked, and other processes would find none.
    const due = await Promise.all(
      kinds.map(kind =>
        Job.findAll({
          where: { ...isDue, kind },
          attributes: ['id', 'turnAt'],
          order: [
            ['turnAt', 'ASC'],
            ['id', 'ASC'],
          ],
          limit: mostTried,
          // Of thousands that are due only the first are read.
          indexHints: [{ type: IndexHints.FORCE, values: ['whose_turn'] }],
        }),
      ),
    )
    const inTurn = due.flat().sort((one, other) => +one.turnAt - +other.turnAt || (one.id < other.id ? -1 : 1))
    for (const { id } of inTurn) {
      const job = await transact(database, async transaction => {
        const free = await Job.findOne({ where: { id, ...isDue }, lock: true, skipLocked: true, transaction })
        if (!free) return null
        const attempts = free.attempts + 1
        return free.update(
          {
            heldUntil: new Date(+now + holdMs),
            runAfter: new Date(+now + 1000 * 2 ** attempts),
            begunAt: now,
            progress: 0,
            attempts,
          },
          { transaction },
        )
      })
      if (job) return job
    }
    return null
  }

  /** Changes the job while it is still ours: not cancelled, and not taken over by another process. */
  async function note(
    job: Job,
    change: Partial<Columns<Job, 'state' | 'heldUntil' | 'progress' | 'runAfter' | 'error' | 'failures' | 'attempts'>>,
  ): Promise<boolean> {
    return transact(database, async transaction => {
      const [changed] = await Job.update(
        { ...change },
        { where: { id: job.id, state: 'open', attempts: job.attempts }, transaction },
      )
      return changed > 0
    })
  }

  /** Whoever looks at what a job works on hears that it is another than before; that they do not is no failure of the job. */
  async function tell({ showId, subject }: Job): Promise<void> {
    if (showId && subject)
      await transact(database, transaction =>
        events.note({ kind: 'progress', showId, id: subject }, transaction),
      ).catch(report)
  }

  async function runNext(lane: Lane): Promise<boolean> {
    const job = await take(lane)
    if (!job) return false
    const definition = list[job.kind]!
    const lost = new AbortController()
    const signal = AbortSignal.any([lost.signal, stopping.signal])
    let progress = 0
    let notes = 0
    let told = 0
    let renewing: Promise<unknown> = Promise.resolve()
    const renew = setInterval(() => {
      // The database counts rows that changed; a millisecond more each time makes sure that ours does, whatever the clock.
      renewing = note(job, { heldUntil: new Date(+clock.now() + holdMs + ++notes), progress })
        .then(ours => {
          if (!ours) lost.abort()
          else if (progress !== told)
            return tell(job).then(() => {
              told = progress
            })
        })
        .catch(report)
    }, noteMs)
    /** Whatever is noted of it afterwards is the last word. */
    const letGo = async (): Promise<void> => {
      clearInterval(renew)
      await renewing
    }
    try {
      if (job.attempts > mostAttempts) {
        await giveUp(job, new Error('Its process ended in each of its tries.'))
        return true
      }
      const run: JobRun = {
        id: job.id,
        signal,
        progress: share => {
          progress = Math.max(progress, share)
        },
      }
      await within(definition.limitMs ?? usualLimitMs, lost, definition.run(job.payload, run)).finally(letGo)
      await note(job, { state: 'done', heldUntil: null, progress: 1 })
      await tell(job)
    } catch (error) {
      await putBack(job, error, signal)
    } finally {
      clearInterval(renew)
    }
    return true
  }

  /** A job that was stopped with its process begins anew at once; one that failed is tried later. */
  async function putBack(job: Job, error: unknown, signal: AbortSignal): Promise<void> {
    if (stopping.signal.aborted) {
      await note(job, { heldUntil: null, runAfter: clock.now(), attempts: job.attempts - 1 })
      return
    }
    if (signal.aborted && !(signal.reason instanceof TooLong)) return
    report(error)
    const failures = job.failures + 1
    if (failures >= mostFailures) await giveUp(job, error)
    else
      await note(job, {
        heldUntil: null,
        failures,
        runAfter: new Date(+clock.now() + 1000 * 4 ** failures),
        error: String(error),
      })
  }

  /** Whoever waits is told first: where that fails, the job stays on the list, and is given up again. */
  async function giveUp(job: Job, error: unknown): Promise<void> {
    await list[job.kind]!.gaveUp?.(job.payload)
    await note(job, { state: 'failed', heldUntil: null, error: String(error) })
    await tell(job)
  }

  /** The lanes that have something to do, by one question for all of them. */
  async function dueLanes(): Promise<Set<Lane>> {
    const now = clock.now()
    const rows = await database.query<{ kind: string }>(
      "SELECT DISTINCT kind FROM jobs WHERE state = 'open' AND run_after <= :now AND (held_until IS NULL OR held_until < :now)",
      { replacements: { now }, type: QueryTypes.SELECT },
    )
    return new Set(rows.flatMap(({ kind }) => list[kind]?.lane ?? []))
  }

  async function runAll(lane: Lane): Promise<void> {
    try {
      while (isRunning && !held.has(lane) && (await runNext(lane)));
    } catch (error) {
      report(error)
    }
  }

  /** Has as many jobs of a lane run at once as it is wide. */
  function runLane(lane: Lane): void {
    const running = busy.get(lane) ?? new Set()
    busy.set(lane, running)
    while (!held.has(lane) && running.size < widthOf(lane)) {
      const one: Promise<void> = runAll(lane).finally(() => running.delete(one))
      running.add(one)
    }
  }

  async function look(): Promise<void> {
    try {
      for (const lane of await dueLanes()) runLane(lane)
    } catch (error) {
      report(error)
    }
    if (isRunning)
      timer = setTimeout(() => {
        looking = look()
      }, pollMs)
  }

  function rowOf({ kind, payload, subject, showId, afterMs = 0, soundMs = 0 }: NewJob) {
    const now = clock.now()
    turnMs = Math.max(turnMs, +now)
    return {
      id: uuidV7(),
      kind,
      payload,
      subject: subject ?? null,
      showId: showId ?? null,
      // What is to be done at once is, whatever the machine’s clock is set to meanwhile.
      runAfter: new Date(afterMs > 0 ? +now + afterMs : 0),
      turnAt: new Date(turnMs + patienceMs(soundMs)),
      createdAt: now,
    }
  }

  async function add(job: NewJob, given?: Transaction): Promise<void> {
    const put = (transaction: Transaction): Promise<unknown> => Job.create(rowOf(job), { transaction })
    await (given ? put(given) : transact(database, put))
  }

  return {
    use: given => {
      list = given as typeof list
    },
    add,
    async addOnce(wanted, transaction) {
      if (wanted.length === 0) return
      const kind = [...new Set(wanted.map(job => job.kind))]
      const subject = [...new Set(wanted.map(job => job.subject))]
      // Held by this transaction they cannot begin before what they are for is there.
      const waiting = await Job.findAll({
        where: { kind, subject, state: 'open', attempts: 0 },
        attributes: ['kind', 'subject'],
        lock: true,
        skipLocked: true,
        transaction,
      })
      const known = new Set(waiting.map(job => `${job.kind} ${job.subject}`))
      const missing = wanted.filter(job => !known.has(`${job.kind} ${job.subject}`))
      await Job.bulkCreate(missing.map(rowOf), { transaction })
    },
    async cancel(kind, subject, given) {
      const put = (transaction: Transaction): Promise<unknown> =>
        Job.update({ state: 'cancelled' }, { where: { kind, subject, state: 'open' }, transaction })
      await (given ? put(given) : transact(database, put))
    },
    openFor: (subject, transaction) =>
      Job.findOne({ where: { subject, state: 'open' }, order: [['createdAt', 'DESC']], transaction }),
    runNext,
    hold(lane) {
      held.add(lane)
      return () => held.delete(lane)
    },
    start() {
      stopping = new AbortController()
      isRunning = true
      looking = look()
    },
    async stop() {
      isRunning = false
      stopping.abort()
      clearTimeout(timer)
      await looking
      await Promise.all([...busy.values()].flatMap(running => [...running]))
    },
  }
}

class TooLong extends Error {}

/** Waits for a try, for so long at most; what does not heed its signal is left behind. */
async function within(limitMs: number, lost: AbortController, work: Promise<void>): Promise<void> {
  let timer: NodeJS.Timeout | undefined
  const late = new Promise<never>((_resolve, reject) => {
    timer = setTimeout(() => {
      const error = new TooLong(`It took longer than ${limitMs / 1000} s.`)
      lost.abort(error)
      reject(error)
    }, limitMs)
  })
  work.catch(() => undefined)
  try {
    await Promise.race([work, late])
  } finally {
    clearTimeout(timer)
  }
}
