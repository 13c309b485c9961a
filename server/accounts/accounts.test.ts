import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { account, type House, openHouse } from '../testing/house'
import { Session } from './models'

let house: House
beforeAll(async () => { house = await openHouse() })
afterAll(() => house.close())

const signIn = (credentials: object, remoteAddress = '127.0.0.1') =>
  house.app.inject({ method: 'POST', url: '/api/v1/session', payload: credentials, remoteAddress })

describe('signing in', () => {
  it('sets a cookie that scripts cannot read and other sites do not send', async () => {
    const answer = await signIn(account)
    expect(answer.statusCode).toBe(204)
    expect(String(answer.headers['set-cookie'])).toMatch(/^lake_letter=[\w-]{43}; Max-Age=2592000; Path=\/; HttpOnly; SameSite=Lax$/)
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
    for (let n = 0; n < 10; n++) await signIn({ email: 'tove@lakeletter.example', password: `wrong ${n}` }, `10.0.1.${n}`)
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
    const second = await house.app.inject({ method: 'POST', url: '/api/v1/accounts', payload: { email: 'second@lakeletter.example', password: 'a long enough one' } })
    expect(second.json()).toMatchObject({ status: 409, code: 'account-exists' })
  })
  it('needs a password of twelve characters, and the error names field and rule but not the password', async () => {
    const short = await house.app.inject({ method: 'POST', url: '/api/v1/accounts', payload: { email: 'x@lakeletter.example', password: 'short secret'.slice(0, 5) } })
    expect(short.json().faults).toEqual([{ field: 'password', value: '(not shown)', rule: 'At least 12 characters; a few words in a row are good.' }])
  })
})

it('a change that a page of another site sends is refused', async () => {
  const answer = await house.app.inject({ method: 'POST', url: '/api/v1/shows', headers: { cookie: house.cookie, origin: 'https://elsewhere.example' }, payload: {} })
  expect(answer.json()).toMatchObject({ status: 403, code: 'foreign-origin' })
})

it('behind https the cookie is Secure', async () => {
  const other = await openHouse({ PUBLIC_URL: 'https://lake.example' })
  const answer = await other.app.inject({ method: 'POST', url: '/api/v1/session', payload: account })
  expect(String(answer.headers['set-cookie'])).toContain('; Secure')
  await other.close()
})
