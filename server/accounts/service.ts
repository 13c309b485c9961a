import { createHash, randomBytes } from 'node:crypto'
import { hash, verify } from '@node-rs/argon2'
import { Op, QueryTypes, type Sequelize } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type { Credentials } from '@contract/session'
import type { Clock } from '../clock'
import { AppError } from '../errors'
import { Account, Session, SignInAttempt } from './models'

export const sessionMs = 30 * 24 * 3600_000
const attemptWindowMs = 15 * 60_000
const mostAttempts = { perEmail: 10, perAddress: 30 }

// OWASP password storage cheat sheet: argon2id (the library's default) with 19 MiB, 2 passes, 1 lane.
const argon = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }

/** Accounts, signing in and out. */
export function accountService({ database, clock }: { database: Sequelize; clock: Clock }) {
  /** What a wrong e-mail address is checked against, so that it takes as long as a wrong password. */
  const decoy = hash(randomBytes(16).toString('hex'), argon)

  async function open(accountId: string): Promise<string> {
    const token = randomBytes(32).toString('base64url')
    const now = clock.now()
    await Session.create({ tokenHash: digest(token), accountId, createdAt: now, expiresAt: new Date(+now + sessionMs) })
    return token
  }

  async function limit(address: string, email: string): Promise<void> {
    const at = { [Op.gt]: new Date(+clock.now() - attemptWindowMs) }
    const [byEmail, byAddress] = await Promise.all([
      SignInAttempt.count({ where: { email, at } }),
      SignInAttempt.count({ where: { address, at } }),
    ])
    if (byEmail >= mostAttempts.perEmail || byAddress >= mostAttempts.perAddress) {
      throw new AppError('too-many-attempts', 'There were too many attempts with this e-mail or from this address in the last quarter of an hour.')
    }
  }

  return {
    isFirstVisit: async (): Promise<boolean> => await Account.count() === 0,

    /** Makes the first account and signs it in. Throws `account-exists` once there is one; of two at the same moment one wins. */
    async createFirst({ email, password }: Credentials): Promise<string> {
      const passwordHash = await hash(password, argon)
      const id = uuidV7()
      const [, made] = await database.query(
        'INSERT INTO accounts (id, email, password_hash, created_at) SELECT ?, ?, ?, ? FROM DUAL WHERE NOT EXISTS (SELECT 1 FROM accounts FOR UPDATE)',
        { replacements: [id, email.toLowerCase(), passwordHash, clock.now()], type: QueryTypes.INSERT },
      )
      if (!made) throw new AppError('account-exists', 'An account was made before.')
      return open(id)
    },

    /** Answers the token of a new session. A wrong e-mail and a wrong password are refused alike, in words and in time. */
    async signIn({ email, password }: Credentials, address: string): Promise<string> {
      const name = email.toLowerCase()
      await limit(address, name)
      const account = await Account.findOne({ where: { email: name } })
      const right = await verify(account?.passwordHash ?? await decoy, password)
      if (!account || !right) {
        await SignInAttempt.create({ address, email: name, at: clock.now() })
        throw new AppError('sign-in-refused', 'No account has this e-mail and this password.')
      }
      await SignInAttempt.destroy({ where: { [Op.or]: [{ email: name }, { at: { [Op.lt]: new Date(+clock.now() - attemptWindowMs) } }] } })
      await Session.destroy({ where: { expiresAt: { [Op.lt]: clock.now() } } })
      return open(account.id)
    },

    async signOut(token: string): Promise<void> {
      await Session.destroy({ where: { tokenHash: digest(token) } })
    },

    /** The account that a session token belongs to; null where it is unknown or has run out. */
    async accountOf(token: string): Promise<Account | null> {
      const session = await Session.findOne({ where: { tokenHash: digest(token), expiresAt: { [Op.gt]: clock.now() } } })
      return session && Account.findByPk(session.accountId)
    },
  }
}

const digest = (token: string): string => createHash('sha256').update(token).digest('hex')
