import { z } from 'zod'
import { commentStates } from '@core/comments/comment'

export const comment = z.object({
  id: z.string(),
  version: z.number(),
  episode: z.object({ id: z.string(), title: z.string(), pageAddress: z.string().nullable() }),
  name: z.string(),
  words: z.string(),
  answer: z.string().nullable(),
  state: z.enum(commentStates),
  links: z.number(),
  cameAt: z.string(),
  isBanned: z.boolean(),
})
export type Comment = z.infer<typeof comment>

export const commentList = z.object({
  takesComments: z.boolean(),
  waiting: z.number(),
  comments: z.array(comment),
  after: z.string().nullable(),
})
export type CommentList = z.infer<typeof commentList>

export const commentListQuery = z.object({
  state: z.enum(commentStates).optional(),
  after: z.uuid('The `after` of a page that was had before.').optional(),
})
export type CommentListQuery = z.infer<typeof commentListQuery>

export const commentsOpen = z.object({ takesComments: z.boolean() })

/** What a maker does with a comment. */
export const commentChange = z.object({
  version: z.int32().min(0),
  state: z.enum(['shown', 'hidden']).optional(),
  answer: z.string().trim().max(3000, 'At most 3,000 characters.').nullable().optional(),
  /** Whether nothing more is taken from whoever wrote it. */
  isBanned: z.boolean().optional(),
})
export type CommentChange = z.infer<typeof commentChange>
