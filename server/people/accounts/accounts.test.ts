import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { account, type House, openHouse } from '../../testing/house'
import { Session } from './models'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

const signIn = (credentials: object, remoteAddress = '127.0.0.1') =>
  house.app.inject({ method: 'POST', url: '/api/v1/session', payload: credentials, remoteAddress })

describe('signing in', () => {
  it('sets a cookie that scripts cannot read and other sites do not send', async () => {
    const answer = await signIn(account)
    expect(answer.statusCode).toBe(204)
    expect(String(answer.headers['set-cookie'])).toMatch(
      /^lake_letter=[\w-]{43}; Max-Age=2592000; Path=\/; HttpOnly; SameSite=Lax$/,
    )
  })

  it('keeps only a digest of the token', async () => {
    const token = house.cookie.split('=')[1]!
    expect((await Session.findAll()).some(session => session.tokenHash === token)).toBe(false)
  })

  it('answers a wrong name and a wrong password with the very same words', async () => {
    const wrongName = await signIn({ ...account, email: 'nobody@lakeletter.example' }, '10.0.0.9')
    const wrongPassword = await signIn({ ...account, password: 'not the password' }, '10.0.0.9')
    expect(wrongName.statusCode).toBe(401)
    expect(wrongName.body).toBe(wrongPassword.body)
    expect(wrongName.json()).toMatchObject({ code: 'sign-in-refused', type: 'urn:lake-letter:sign-in-refused' })
  })

  it('is stopped for an account after ten wrong passwords, from whatever address, and opens again later', async () => {
    for (let n = 0; n < 10; n++)
      await signIn({ email: 'tove@lakeletter.example', password: `wrong ${n}` }, `10.0.1.${n}`)
    const stopped = await signIn({ email: 'TOVE@lakeletter.example', password: 'whatever' }, '10.0.1.99')
    expect(stopped.statusCode).toBe(429)
    house.clock.moveBy(16 * 60_000)
    expect((await signIn({ email: 'tove@lakeletter.example', password: 'whatever' }, '10.0.1.99')).statusCode).toBe(401)
  })

  it('is stopped for an address after thirty wrong attempts with any names', async () => {
    for (let n = 0; n < 30; n++) await signIn({ email: `a${n}@lakeletter.example`, password: 'x' }, '10.0.2.1')
    expect((await signIn(account, '10.0.2.1')).statusCode).toBe(429)
    expect((await signIn(account, '10.0.2.2')).statusCode).toBe(204)
  })

  it('ends with the sign-out, and after thirty days', async () => {
    const cookie = String((await signIn(account)).headers['set-cookie']).split(';')[0]!
    const shows = () => house.app.inject({ url: '/api/v1/shows', headers: { cookie } })
    expect((await shows()).statusCode).toBe(200)
    await house.app.inject({ method: 'DELETE', url: '/api/v1/session', headers: { cookie } })
    expect((await shows()).json()).toMatchObject({ status: 401, code: 'sign-in-needed' })
    const late = String((await signIn(account)).headers['set-cookie']).split(';')[0]!
    house.clock.moveBy(31 * 24 * 3600_000)
    expect((await house.app.inject({ url: '/api/v1/shows', headers: { cookie: late } })).statusCode).toBe(401)
  })
})

describe('the first account', () => {
  it('is made once', async () => {
    const second = await house.app.inject({
      method: 'POST',
      url: '/api/v1/accounts',
      payload: { email: 'second@lakeletter.example', password: 'a long enough one' },
    })
    expect(second.json()).toMatchObject({ status: 409, code: 'account-exists' })
  })
  it('needs a password of twelve characters, and the error names field and rule but not the password', async () => {
    const short = await house.app.inject({
      method: 'POST',
      url: '/api/v1/accounts',
      payload: { email: 'x@lakeletter.example', password: 'short secret'.slice(0, 5) },
    })
    expect(short.json().faults).toEqual([
      { field: 'password', value: '(not shown)', rule: 'At least 12 characters. Several random words work well.' },
    ])
  })
})

it('a change that a page of another site sends is refused', async () => {
  const answer = await house.app.inject({
    method: 'POST',
    url: '/api/v1/shows',
    headers: { cookie: house.cookie, origin: 'https://elsewhere.example' },
    payload: {},
  })
  expect(answer.json()).toMatchObject({ status: 403, code: 'foreign-origin' })
})

describe('many at once', () => {
  it('of three hundred guesses at one account ten are looked at, and no more are hashed', async () => {
    house.clock.moveBy(3600_000)
    const answers = await Promise.all(
      Array.from({ length: 300 }, (_, n) =>
        signIn({ email: 'guessed@lakeletter.example', password: `guess ${n}` }, `10.1.${n >> 8}.${n & 255}`),
      ),
    )
    const count = (status: number) => answers.filter(({ statusCode }) => statusCode === status).length
    const others = answers.filter(({ statusCode }) => statusCode !== 401 && statusCode !== 429)
    expect(others.map(({ body }) => body)).toEqual([])
    expect([count(401), count(429)]).toEqual([10, 290])
  })

  it('of guesses at many accounts from one address thirty are looked at', async () => {
    const answers = await Promise.all(
      Array.from({ length: 80 }, (_, n) => signIn({ email: `many${n}@lakeletter.example`, password: 'x' }, '10.2.0.1')),
    )
    expect(answers.filter(({ statusCode }) => statusCode === 401)).toHaveLength(30)
  })

  it('do not stall who comes to make an account where there is one: nothing is hashed for them', async () => {
    const asked = Array.from({ length: 60 }, (_, n) =>
      house.app.inject({
        method: 'POST',
        url: '/api/v1/accounts',
        payload: { email: `n${n}@lakeletter.example`, password: 'a long enough password' },
      }),
    )
    expect((await Promise.all(asked)).every(answer => answer.json().code === 'account-exists')).toBe(true)
  })

  it('wait in a line of their own, and are told where it is full', async () => {
    house.clock.moveBy(3600_000)
    const answers = await Promise.all(
      Array.from({ length: 120 }, (_, n) =>
        signIn({ email: `line${n}@lakeletter.example`, password: 'x' }, `10.3.0.${n}`),
      ),
    )
    expect(new Set(answers.map(({ statusCode }) => statusCode))).toEqual(new Set([401, 503]))
    expect(answers.find(({ statusCode }) => statusCode === 503)!.json()).toMatchObject({
      code: 'busy',
      todo: expect.stringMatching(/moment/),
    })
  })

  it('a right password after wrong ones is let in, and leaves nothing counted against the account', async () => {
    house.clock.moveBy(3600_000)
    for (let round = 0; round < 3; round++) {
      for (let n = 0; n < 8; n++) await signIn({ ...account, password: `wrong ${n}` }, `10.4.${round}.1`)
      expect((await signIn(account, `10.4.${round}.1`)).statusCode).toBe(204)
    }
  })
})

// A second house takes the models over; these come last.
it('behind https the cookie is Secure', async () => {
  const other = await openHouse({ PUBLIC_URL: 'https://lake.example' })
  const answer = await other.app.inject({ method: 'POST', url: '/api/v1/session', payload: account })
  expect(String(answer.headers['set-cookie'])).toContain('; Secure')
  await other.close()
})

describe('behind proxies', () => {
  const from = (app: House['app'], forwarded: string) =>
    app.inject({
      method: 'POST',
      url: '/api/v1/session',
      payload: { email: 'p@lakeletter.example', password: 'x' },
      headers: { 'x-forwarded-for': forwarded },
      remoteAddress: '10.9.9.9',
    })
  const countedAddresses = async (of: House) =>
    (
      await of.platform.database.query<{ subject: string }>(
        "SELECT subject FROM rate_counts WHERE kind = 'address' ORDER BY subject",
        { type: QueryTypes.SELECT },
      )
    ).map(({ subject }) => subject)

  it.each([
    ['0', ['10.9.9.9']],
    ['1', ['203.0.113.7']],
    ['2', ['198.51.100.4']],
  ])('with TRUST_PROXY=%s so many are believed', async (hops, wanted) => {
    const behind = await openHouse({ TRUST_PROXY: hops })
    await from(behind.app, '192.0.2.66, 198.51.100.4, 203.0.113.7')
    expect(await countedAddresses(behind)).toEqual(wanted)
    await behind.close()
  })

  it('an address as long as a letter is cut to what can be counted', async () => {
    const behind = await openHouse({ TRUST_PROXY: '1' })
    const long = 'x'.repeat(3000)
    expect((await from(behind.app, long)).statusCode).toBe(401)
    expect(await countedAddresses(behind)).toEqual([long.slice(0, 254)])
    await behind.close()
  })
})
