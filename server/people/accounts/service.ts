import { createHash, randomBytes } from 'node:crypto'
import { Op, QueryTypes, type Sequelize } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type { Credentials } from '@contract/session'
import type { Clock } from '../../platform/clock'
import { AppError } from '../../platform/http/errors'
import { signInAttempts } from './attempts'
import { hashed, isPassword } from './hashing'
import { Account, Session } from './models'

export const sessionCookie = 'lake_letter'
export const sessionMs = 30 * 24 * 3600_000

/** Accounts, signing in and out. */
export function accountService({ database, clock }: { database: Sequelize; clock: Clock }) {
  const attempts = signInAttempts({ database, clock })

  async function open(accountId: string): Promise<string> {
    const token = randomBytes(32).toString('base64url')
    const now = clock.now()
    await Session.create({ tokenHash: digest(token), accountId, createdAt: now, expiresAt: new Date(+now + sessionMs) })
    return token
  }

  const isFirstVisit = async (): Promise<boolean> => (await Account.count()) === 0

  async function needFirstVisit(): Promise<void> {
    if (!(await isFirstVisit())) throw new AppError('account-exists', 'An account was made before.')
  }

  return {
    isFirstVisit,

    /** Makes the first account and signs it in. Throws `account-exists` once there is one; of two at the same moment one wins. */
    async createFirst({ email, password }: Credentials): Promise<string> {
      await needFirstVisit()
      const passwordHash = await hashed(password, needFirstVisit)
      const id = uuidV7()
      const [, made] = await database.query(
        'INSERT INTO accounts (id, email, password_hash, created_at) SELECT ?, ?, ?, ? FROM DUAL WHERE NOT EXISTS (SELECT 1 FROM accounts FOR UPDATE)',
        { replacements: [id, email.toLowerCase(), passwordHash, clock.now()], type: QueryTypes.INSERT },
      )
      if (!made) throw new AppError('account-exists', 'An account was made before.')
      return open(id)
    },

    /** Answers the token of a new session. A wrong email and a wrong password are refused alike, in words and in time. */
    async signIn({ email, password }: Credentials, address: string): Promise<string> {
      const name = email.toLowerCase()
      await attempts.need(name, address)
      const account = await Account.findOne({ where: { email: name } })
      if (!(await isPassword(account?.passwordHash ?? null, password)) || !account) {
        throw new AppError('sign-in-refused', 'No account has this email and this password.')
      }
      await attempts.forgive(name, address)
      await Session.destroy({ where: { expiresAt: { [Op.lt]: clock.now() } } })
      return open(account.id)
    },

    async signOut(token: string): Promise<void> {
      await Session.destroy({ where: { tokenHash: digest(token) } })
    },

    /** Those of some session tokens that are still good. */
    async stillSignedIn(tokens: readonly string[]): Promise<ReadonlySet<string>> {
      const byHash = new Map(tokens.map(token => [digest(token), token]))
      const rows = await Session.findAll({
        where: { tokenHash: [...byHash.keys()], expiresAt: { [Op.gt]: clock.now() } },
        attributes: ['tokenHash'],
        raw: true,
      })
      return new Set(rows.map(({ tokenHash }) => byHash.get(tokenHash)!))
    },

    /** The account that a session token belongs to; null where it is unknown or has run out. */
    async accountOf(token: string): Promise<Account | null> {
      const session = await Session.findOne({
        where: { tokenHash: digest(token), expiresAt: { [Op.gt]: clock.now() } },
      })
      return session && Account.findByPk(session.accountId)
    },
  }
}

const digest = (token: string): string => createHash('sha256').update(token).digest('hex')
