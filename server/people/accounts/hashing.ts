import { randomBytes } from 'node:crypto'
import { hash, verify } from '@node-rs/argon2'
import pLimit from 'p-limit'
import { AppError } from '../../platform/http/errors'

// OWASP password storage cheat sheet: argon2id (the library's default) with 19 MiB, 2 passes, 1 lane.
const argon = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }

/** Each takes 19 MiB and a thread of the few that also read files. */
const mostAtOnce = 2
const mostWaiting = 40

const turns = pLimit(mostAtOnce)

/** Gives turns to what is costly: two at once, forty in line. Throws `busy` where the line is full. */
async function inTurn<T>(act: () => Promise<T>): Promise<T> {
  if (turns.activeCount + turns.pendingCount >= mostAtOnce + mostWaiting)
    throw new AppError('busy', 'Very many are signing in at this moment.')
  return turns(act)
}

/** What a wrong email address is checked against, so that it takes as long as a wrong password. */
const decoy = hash(randomBytes(16).toString('hex'), argon)

/** The hash of a password; `mayStill` is asked when its turn has come, and may throw. */
export const hashed = (password: string, mayStill: () => Promise<void>): Promise<string> =>
  inTurn(async () => {
    await mayStill()
    return hash(password, argon)
  })

/** Whether a password is the one behind a hash; without a hash it takes as long, and is not. */
export const isPassword = (passwordHash: string | null, password: string): Promise<boolean> =>
  inTurn(async () => {
    const right = await verify(passwordHash ?? (await decoy), password)
    return right && passwordHash !== null
  })
