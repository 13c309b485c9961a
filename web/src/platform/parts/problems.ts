import type { Problem } from '@contract/problem'
import { ApiError } from '../api/client'

/** An error as a person is told of it. */
export type ShownProblem = Pick<Problem, 'title' | 'detail' | 'todo' | 'faults'>

/** What to tell of something that was thrown: what the server said, or that it said nothing, and what became of the work. */
export const problemOf = (error: unknown, left: string): ShownProblem =>
  error instanceof ApiError
    ? error.problem
    : { title: 'The server does not answer', detail: left, todo: 'Try again in a moment.' }

/** Where the contract's check found faults before anything was sent. */
export const notYet: ShownProblem = {
  title: 'Not saved yet',
  detail: 'Some fields are not valid.',
  todo: 'Correct the marked fields and save again.',
}
