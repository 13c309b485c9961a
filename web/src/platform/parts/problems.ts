import type { Problem } from '@contract/problem'
import { ApiError } from '../api/client'
import { t } from './messages'

/** An error as a person is told of it. */
export type ShownProblem = Pick<Problem, 'title' | 'detail' | 'todo' | 'faults'>

/** What to tell of something that was thrown: what the server said, or that it said nothing, and what became of the work. */
export const problemOf = (error: unknown, left: string): ShownProblem =>
  error instanceof ApiError
    ? error.problem
    : { title: t('serverSilentTitle'), detail: left, todo: t('tryAgainInAMoment') }

/** Where the contract's check found faults before anything was sent. */
export const notYet: ShownProblem = {
  title: t('notSavedYet'),
  detail: t('someFieldsFaulty'),
  todo: t('correctAndSave'),
}
