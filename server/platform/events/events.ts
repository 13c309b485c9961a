import { QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import type { News } from '@contract/events'
import type { Clock } from '../clock'

export interface NumberedNews extends News {
  number: number
}

/** Whoever hears of changes: an account with what it is told of. */
export interface Listening {
  accountId: string
  tell(news: NumberedNews): void
  /** Told at the beginning, and where what it has missed is not known any more: everything may be another than it knows. */
  tellAll(number: number): void
}

/** Told of a change, or that anything may have changed. */
export type Hearer = (news: News | 'all') => void

export interface Events {
  /** Writes changes down, in the transaction that makes them; whoever listens, in any process, hears of them within half a second. */
  note(news: News | readonly News[], transaction: Transaction): Promise<void>
  /** Tells this process of every change from now on: of its own ones at once, of those of others within half a second. */
  hear(listener: Hearer): void
  /** Tells of changes in the shows of an account from now on, and of those since a number; answers how to end it. */
  listen(listening: Listening, since?: number): Promise<() => void>
  stop(): Promise<void>
}

const lookMs = 400
/** Numbers are given before a transaction commits, so for so long a lower one may still come after a higher one. */
const lateMs = 5_000

interface Row {
  number: number | bigint
  kind: News['kind']
  showId: string
  id: string
  at: Date
}
const columns = 'number, kind, show_id AS showId, subject AS id, at'

/** Changes as rows that any number of processes write and read. */
export function createEvents(database: Sequelize, clock: Clock, report: (error: unknown) => void): Events {
  const listeners = new Map<Listening, Set<string>>()
  const hearers = new Set<Hearer>()
  const isHeard = (): boolean => listeners.size > 0 || hearers.size > 0
  let begun: Promise<void> | null = null
  /** All up to this number were told; of those above, these. */
  let floor = 0
  let told = new Set<number>()
  let timer: NodeJS.Timeout | undefined
  let looking: Promise<void> | null = null
  let again = false

  const select = (where: string, replacements: Record<string, unknown>): Promise<Row[]> =>
    database.query<Row>(`SELECT ${columns} FROM events WHERE ${where} ORDER BY number`, {
      replacements,
      type: QueryTypes.SELECT,
    })

  async function showsOf(accountId: string): Promise<Set<string>> {
    const rows = await database.query<{ showId: string }>(
      'SELECT show_id AS showId FROM memberships WHERE account_id = ?',
      { replacements: [accountId], type: QueryTypes.SELECT },
    )
    return new Set(rows.map(({ showId }) => showId))
  }

  function newsOf({ number, kind, showId, id }: Row): NumberedNews {
    return { number: Number(number), kind, showId, id }
  }

  async function tell(row: Row): Promise<void> {
    const news = newsOf(row)
    for (const hear of hearers) hear(news)
    for (const [listening, shows] of listeners) {
      if (news.kind === 'membership' && news.id === listening.accountId) {
        const now = await showsOf(listening.accountId)
        // It may have left meanwhile.
        if (listeners.has(listening)) listeners.set(listening, now)
      }
      if ((listeners.get(listening) ?? shows).has(news.showId)) listening.tell(news)
    }
  }

  /** Begins above all that is old; what is young counts as told, except where it comes late. */
  async function begin(): Promise<void> {
    const settled = new Date(+clock.now() - lateMs)
    const [row] = await database.query<{ floor: number | bigint | null }>(
      'SELECT MAX(number) AS floor FROM events WHERE at < ?',
      { replacements: [settled], type: QueryTypes.SELECT },
    )
    floor = Number(row?.floor ?? 0)
    told = new Set((await select('number > :floor', { floor })).map(({ number }) => Number(number)))
  }

  async function look(): Promise<void> {
    const settled = +clock.now() - lateMs
    let next = floor
    for (const row of await select('number > :floor', { floor })) {
      const number = Number(row.number)
      if (!told.has(number)) {
        await tell(row)
        told.add(number)
      }
      if (+row.at < settled) next = number
    }
    floor = next
    told = new Set([...told].filter(number => number > floor))
  }

  /** Begins where nobody has heard anything so far; what cannot begin now does at the next look. */
  async function ready(): Promise<void> {
    begun ??= begin().then(() => {
      // What was asked for before may have changed before anybody listened for it.
      for (const hear of hearers) hear('all')
    })
    await begun.catch(error => {
      begun = null
      throw error
    })
  }

  function wake(): void {
    if (!isHeard()) return
    clearTimeout(timer)
    if (looking) {
      again = true
      return
    }
    looking = ready()
      .then(look)
      .catch(report)
      .then(() => {
        looking = null
        if (again) {
          again = false
          wake()
        } else if (isHeard()) timer = setTimeout(wake, lookMs)
      })
  }

  /** Where nobody hears any more, what came meanwhile is not told later. */
  function rest(): void {
    if (isHeard()) return
    clearTimeout(timer)
    begun = null
  }

  /** What somebody missed since a number; all of it where that is not known any more, or where there is none. */
  async function catchUp(listening: Listening, shows: Set<string>, since?: number): Promise<void> {
    const [known] = since === undefined ? [] : await select('number = :since', { since })
    if (!known) {
      const [row] = await database.query<{ last: number | bigint | null }>('SELECT MAX(number) AS last FROM events', {
        type: QueryTypes.SELECT,
      })
      listening.tellAll(Number(row?.last ?? 0))
      return
    }
    const missed = await select('at >= :from AND number <> :since', { from: new Date(+known.at - lateMs), since })
    for (const row of missed) if (shows.has(row.showId)) listening.tell(newsOf(row))
  }

  return {
    async note(news, transaction) {
      const all = [news].flat() as readonly News[]
      if (all.length === 0) return
      const at = clock.now()
      await database.query(
        `INSERT INTO events (kind, show_id, subject, at) VALUES ${all.map(() => '(?, ?, ?, ?)').join(', ')}`,
        { replacements: all.flatMap(({ kind, showId, id }) => [kind, showId, id, at]), transaction },
      )
      transaction.afterCommit(() => {
        for (const each of all) for (const hear of hearers) hear(each)
        wake()
      })
    },

    hear(listener) {
      hearers.add(listener)
      wake()
    },

    async listen(listening, since) {
      const shows = await showsOf(listening.accountId)
      await ready()
      listeners.set(listening, shows)
      await catchUp(listening, shows, since)
      wake()
      return () => {
        listeners.delete(listening)
        rest()
      }
    },

    async stop() {
      listeners.clear()
      hearers.clear()
      rest()
      await looking
    },
  }
}
