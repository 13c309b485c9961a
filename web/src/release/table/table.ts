import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { TablePage, TableQuery, TableRow } from '@contract/table'
import type {
  BulkEditRequest,
  BulkEditResult,
  BulkEditQuery,
  BulkEditHistory,
  BulkEditPreview,
  BulkEditUndone,
} from '@contract/bulkEdits'
import type { BulkEdit } from '@core/episode/bulkEdit'
import { api } from '../../platform/api'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import { t } from './messages'

type Asked = Partial<TableQuery>
/** A change of many that is being looked at before it is made. */
interface Looked {
  look: BulkEditQuery
  outlook: BulkEditPreview
}
/** What was done to many, until something else is done. */
type After = { done: BulkEditResult } | { takenBack: BulkEditUndone }

const [firstRows, furtherRows] = [100, 1000]

/** All episodes of a show as they were asked for, and what is done to many of them. */
export const useTable = defineStore('table', () => {
  const rows = shallowRef<readonly TableRow[] | null>(null)
  const total = ref(0)
  /** What the rows that are here were asked by. */
  const shownQuery = shallowRef<Asked>({})
  const problem = ref<ShownProblem | null>(null)
  const looked = shallowRef<Looked | null>(null)
  const after = shallowRef<After | null>(null)
  /** By what the rows were asked that the last change was made of. */
  const changedQuery = shallowRef<Asked | null>(null)
  /** That change has left nothing of them. */
  const isEmptied = computed(() => total.value === 0 && changedQuery.value === shownQuery.value)
  const made = shallowRef<BulkEditHistory['changes']>([])
  const busy = ref(false)
  let turn = 0
  let asked: { showId: string; query: Asked } | null = null

  async function attempt(act: () => Promise<void>, left: string): Promise<void> {
    problem.value = null
    await act().catch((error: unknown) => {
      problem.value = problemOf(error, left)
    })
  }
  /** What is done to some; meanwhile nothing else can be. A list that is asked for stands in nobody's way. */
  async function work(act: () => Promise<void>): Promise<void> {
    busy.value = true
    await attempt(act, t('nothingWasChanged'))
    busy.value = false
  }

  /** Rows behind some that are here; what moved meanwhile is not shown twice. */
  async function rest(
    showId: string,
    query: Asked,
    first: TablePage,
    show: (page: TablePage) => boolean,
  ): Promise<void> {
    let [page, from] = [first, first.rows.length]
    while (from < page.total) {
      const next = await api.table(showId, { ...query, from, limit: furtherRows })
      if (next.rows.length === 0) break
      from += next.rows.length
      const known = new Set(page.rows.map(({ id }) => id))
      page = { rows: [...page.rows, ...next.rows.filter(({ id }) => !known.has(id))], total: next.total }
      if (!show(page)) return
    }
  }

  /** Shows what is asked for, the first rows at once. */
  async function load(showId: string, query: Asked): Promise<void> {
    const mine = ++turn
    if (asked?.showId !== showId) {
      rows.value = null
      after.value = looked.value = null
    }
    asked = { showId, query }
    const show = (page: TablePage): boolean => {
      if (mine !== turn) return false
      rows.value = page.rows
      total.value = page.total
      shownQuery.value = query
      return true
    }
    await attempt(async () => {
      const first = await api.table(showId, { ...query, limit: firstRows })
      if (show(first)) await rest(showId, query, first, show)
    }, t('listIsOld'))
  }

  /** Takes over what has changed, all at once, so that nothing jumps. */
  async function refresh(): Promise<void> {
    if (!asked) return
    const mine = ++turn
    const { showId, query } = asked
    let all = await api.table(showId, { ...query, limit: furtherRows })
    await rest(showId, query, all, page => {
      all = page
      return mine === turn
    })
    if (mine !== turn) return
    shownQuery.value = query
    rows.value = all.rows
    total.value = all.total
  }

  /** Looks what a change would make of some. */
  const look = (showId: string, episodes: BulkEditQuery['episodes'], change: BulkEdit): Promise<void> =>
    work(async () => {
      const what = { episodes, change }
      looked.value = { look: what, outlook: await api.previewBulkEdit(showId, what) }
    })
  /** Looks at it in an order that was chosen by hand: those that get no date keep their places behind. */
  async function reorder(showId: string, ids: string[]): Promise<void> {
    const seen = looked.value
    if (seen?.look.change.kind !== 'lay out') return
    const others = seen.outlook.episodes.map(({ id }) => id).filter(id => !ids.includes(id))
    await look(showId, [...ids, ...others], { ...seen.look.change, order: 'as listed' })
  }
  const leave = (): void => {
    looked.value = null
  }

  /** Says what was done once the rows show it; where they cannot be had it was done all the same, and news bring them later. */
  async function showAfter(what: After): Promise<void> {
    await refresh().catch(() => undefined)
    after.value = what
    changedQuery.value = 'done' in what ? (asked?.query ?? null) : null
  }

  /** Makes the change that was looked at; where something is another by now, it is looked at again. */
  async function make(showId: string): Promise<void> {
    const seen = looked.value
    if (!seen) return
    await work(async () => {
      const done = await api.bulkEdit(showId, { episodes: asSeen(seen.outlook), change: seen.look.change })
      looked.value = null
      await showAfter({ done })
    })
    const { value: refused } = problem
    if (!refused || !looked.value) return
    await look(showId, seen.look.episodes, seen.look.change)
    problem.value ??= refused
  }

  /** Takes a change back, for some of what was changed or for all of it. */
  const takeBack = (showId: string, id: string, episodes?: string[]): Promise<void> =>
    work(async () => {
      await showAfter({ takenBack: await api.undoBulkEdit(showId, id, { episodes }) })
    })

  /** What was done before and can still be taken back. */
  async function loadMade(showId: string): Promise<void> {
    made.value = (await api.bulkEdits(showId)).changes
  }

  const restore = (id: string): Promise<void> =>
    work(async () => {
      await api.restoreEpisode(id)
      await refresh().catch(() => undefined)
    })

  return {
    rows,
    total,
    shownQuery,
    problem,
    looked,
    after,
    isEmptied,
    busy,
    load,
    refresh,
    look,
    reorder,
    leave,
    make,
    takeBack,
    made,
    loadMade,
    restore,
  }
})

/** The episodes of an outlook, each with the date that it was seen to get. */
function asSeen({ episodes, changes }: BulkEditPreview): BulkEditRequest['episodes'] {
  const dates = new Map(changes.map(({ id, at }) => [id, at]))
  return episodes.map(({ id, version }) => ({ id, version, ...(dates.get(id) && { at: dates.get(id)! }) }))
}
