import type { AddressInfo } from 'node:net'
import { createTransport } from 'nodemailer'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { mailbox } from './mails'
import { mailServer, pageServer } from './server'

const box = mailbox(3)
const mail = mailServer(box)
const pages = pageServer(box)
let smtp: string
let address: string
beforeAll(async () => {
  await new Promise<void>(resolve => mail.listen(0, '127.0.0.1', () => pages.listen(0, '127.0.0.1', resolve)))
  smtp = `smtp://127.0.0.1:${(mail.server.address() as AddressInfo).port}`
  address = `http://127.0.0.1:${(pages.address() as AddressInfo).port}`
})
afterAll(() => {
  mail.close()
  pages.close()
})
const send = (subject: string, text: string) =>
  createTransport({ url: smtp }).sendMail({ from: 'a@lake.example', to: 'b@lake.example', subject, text })

it('shows the mail that arrived, whatever is written in it', async () => {
  await send('Reeds & <b>bellows</b>, ÄÖÜ', 'Look: http://lake.example/a?b=1&c=2\n<script>alert(1)</script>')
  const [first] = (await (await fetch(`${address}/mails`)).json()) as { subject: string; text: string }[]
  expect(first).toMatchObject({ number: 1, subject: 'Reeds & <b>bellows</b>, ÄÖÜ', to: 'b@lake.example' })
  const page = await (await fetch(address)).text()
  expect(page).toContain('Reeds &#38; &#60;b&#62;bellows')
  expect(page).not.toContain('<script>alert')
  expect(page).toContain('<a href="http://lake.example/a?b=1&#38;c=2">')
})

it('keeps the newest few, and refuses what is too large', async () => {
  for (const subject of ['2', '3', '4']) await send(subject, 'x')
  expect(box.all().map(({ subject }) => subject)).toEqual(['4', '3', '2'])
  await expect(send('large', 'x'.repeat(6_000_000))).rejects.toThrow(/552/)
})

it('has nothing at other addresses', async () => {
  expect((await fetch(`${address}/else`)).status).toBe(404)
})
