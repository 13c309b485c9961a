import { setTimeout as wait } from 'node:timers/promises'
import { DatabaseError, type Sequelize, type Transaction } from 'sequelize'
import { AppError } from '../http/errors'

const mostAttempts = 12
const longestPauseMs = 60

/**
 * Runs `act` in a transaction, and once more where the database broke it off because it stood in another one's way: all
 * of it is undone then, so `act` may have no effects outside the transaction. Throws `busy` where it never gets through.
 */
export const transact = <T>(database: Sequelize, act: (transaction: Transaction) => Promise<T>): Promise<T> =>
  untilDone(() => database.transaction(act))

/** The same for a single statement, which needs no transaction. */
export async function untilDone<T>(act: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await act()
    } catch (error) {
      if (!isInTheWay(error)) throw error
      if (attempt === mostAttempts) throw new AppError('busy', 'Many changes at once stand in each other’s way.')
      await wait(Math.random() * longestPauseMs * Math.min(attempt, 5))
    }
  }
}

/** InnoDB ends the cheaper one of two transactions that wait for each other; its error asks to try again. */
function isInTheWay(error: unknown): boolean {
  const { code } = ((error as DatabaseError).original ?? {}) as { code?: string }
  return error instanceof DatabaseError && (code === 'ER_LOCK_DEADLOCK' || code === 'ER_CHECKREAD')
}
