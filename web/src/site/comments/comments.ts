import { defineStore } from 'pinia'
import type { Comment, CommentChange, CommentList } from '@contract/comments'
import type { CommentState } from '@core/comments/comment'
import { api } from '../../platform/api'
import { useKeptList } from '../../platform/parts/keptList'

/** Comments to the open show. */
export const useComments = defineStore('comments', () => {
  const { list, problem, busy, act } = useKeptList<CommentList>()

  const load = (showId: string, state?: CommentState): Promise<boolean> => act(() => api.comments(showId, { state }))

  /** Does something with one; it stays where it stands in the list, so that nothing moves under the hand. */
  const change = (comment: Comment, wanted: Omit<CommentChange, 'version'>): Promise<boolean> =>
    act(async () => {
      const before = list.value!
      const changed = await api.changeComment(comment.id, { ...wanted, version: comment.version })
      const waits = (each: Comment): number => Number(each.state === 'waiting')
      return {
        ...before,
        waiting: before.waiting - waits(comment) + waits(changed),
        comments: before.comments.map(each => (each.id === changed.id ? changed : each)),
      }
    })

  const more = (showId: string, state?: CommentState): Promise<boolean> =>
    act(async () => {
      const before = list.value!
      const next = await api.comments(showId, { state, after: before.after ?? undefined })
      return { ...next, comments: [...before.comments, ...next.comments] }
    })

  return {
    list,
    problem,
    busy,
    load,
    more,
    change,
    open: (showId: string, takesComments: boolean) => act(() => api.openComments(showId, takesComments)),
  }
})
