import { defineStore } from 'pinia'
import type { OwnPage, OwnPageChange, OwnPageList } from '@contract/ownPages'
import { api } from '../../platform/api'
import { unsentBox } from '../../platform/saving/unsent'
import { useKeptList } from '../../platform/parts/keptList'

type Words = Pick<OwnPage, 'title' | 'content'>
/** What was written on a page and not saved. */
const unsaved = unsentBox<Words & { atMs: number }>('lake-letter:unsaved-page')

/** Pages of the maker's own on the site of the open show. */
export const useOwnPages = defineStore('ownPages', () => {
  const { list, problem, busy, act } = useKeptList<OwnPageList>()

  const load = (showId: string): Promise<boolean> => act(() => api.ownPages(showId))

  /** Where another window was first, its words are on the list then, and these can be saved in their place. */
  async function change(showId: string, id: string, page: OwnPageChange): Promise<boolean> {
    if (await act(() => api.changeOwnPage(id, page))) {
      unsaved.drop(id)
      return true
    }
    const why = problem.value
    await load(showId)
    problem.value = why
    return false
  }

  return {
    list,
    problem,
    busy,
    load,
    create: (showId: string, title: string) => act(() => api.createOwnPage(showId, { title })),
    change,
    remove: (id: string) => act(() => api.removeOwnPage(id)),
    keepUnsaved: (id: string, { title, content }: Words): void =>
      unsaved.keep(id, { title, content, atMs: Date.now() }),
    takeUnsaved: (id: string): Words | null => unsaved.take(id, Date.now()),
    dropUnsaved: unsaved.drop,
  }
})
