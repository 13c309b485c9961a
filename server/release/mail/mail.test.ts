import { createServer, type Server, type Socket } from 'node:net'
import type { AddressInfo } from 'node:net'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { MailState } from '@contract/mail'
import type { Show } from '@contract/shows'
import type { ParsedMail } from 'mailparser'
import type { SMTPServer } from 'smtp-server'
import { AudioFile } from '../../media/files/models'
import { jobList } from '../../app/jobList'
import { Job } from '../../platform/jobs/models'
import { dueReleases } from '../releases/due'
import { takingMailServer } from '../../testing/mailServer'
import { account, type House, morning, openHouse, type WholeEpisode } from '../../testing/house'
import { Mail, Notice } from './models'
import { sendMail } from './send'

let house: House
let show: Show
let mails: ParsedMail[]
let port: number
let stop: () => Promise<void>

/** What listens where mail is handed over; another in each test. */
async function listen(server: Server | SMTPServer): Promise<void> {
  const plain = 'server' in server ? server.server : server
  await new Promise<void>(resolve => server.listen(port, '127.0.0.1', resolve))
  port = (plain.address() as AddressInfo).port
  stop = () => new Promise(resolve => server.close(() => resolve()))
}
/** One that takes everything. */
async function takeAll(): Promise<void> {
  const taking = takingMailServer()
  mails = taking.mails
  await listen(taking.server)
}
async function listenWith(answer: (socket: Socket) => void): Promise<void> {
  const sockets = new Set<Socket>()
  const server = createServer(socket => {
    sockets.add(socket)
    socket.on('error', () => undefined)
    answer(socket)
  })
  await listen(server)
  const close = stop
  stop = async () => {
    for (const socket of sockets) socket.destroy()
    await close()
  }
}

beforeAll(async () => {
  port = 0
  await takeAll()
  await stop()
  house = await openHouse({ SMTP_URL: `smtp://127.0.0.1:${port}` })
  show = await house.makeShow('bellows-and-reeds')
})
afterAll(() => house.close())
beforeEach(async () => {
  house.clock.moveTo(morning)
  mails = []
  stop = () => Promise.resolve()
  await house.call('PUT', '/mail', { unwanted: [] })
  await Promise.all([Mail.destroy({ where: {} }), Notice.destroy({ where: {} }), Job.destroy({ where: {} })])
})
afterEach(() => stop())

const at = (local: string) => ({ kind: 'at', local, zone: 'Europe/Zurich' })
const release = ({ id }: Pick<Episode, 'id'>, when?: object): Promise<Episode> => house.release(id, when)
const work = async (): Promise<void> => {
  while (await house.platform.jobs.runNext('telling'));
  while (await house.platform.jobs.runNext('mail'));
}
const state = async (): Promise<MailState> => (await house.call('GET', '/mail')).json()
const subjects = (): string[] => mails.map(({ subject }) => subject!)
/** An episode that is scheduled and then loses its audio, as when its address answers no more. */
async function unready(title: string, local: string): Promise<WholeEpisode> {
  const { id } = await release(await house.makeReady(show.id, title), at(local))
  const { sound } = await house.get(id)
  await AudioFile.update({ reachable: false }, { where: { id: sound.source!.id } })
  return house.get(id)
}
const reachAgain = (): Promise<unknown> => AudioFile.update({ reachable: true }, { where: {} })

describe('whoever may release', () => {
  it('is written when an episode went out, with the way to its page, once', async () => {
    await takeAll()
    const released = await release(await house.makeReady(show.id, 'Out it goes'))
    await work()
    await work()
    expect(mails).toMatchObject([
      {
        to: { text: account.email },
        from: { text: '"Lake Letter" <lake-letter@lake.example>' },
        subject: 'Bellows & Reeds: “Out it goes” is out',
        text: expect.stringContaining(released.pageAddress!),
      },
    ])
    expect((await state()).last).toMatchObject([{ state: 'sent', problem: null }])
  })

  it('gets one mail of many that go out together', async () => {
    await takeAll()
    for (const title of ['One', 'Two', 'Three'])
      await release(await house.makeReady(show.id, title), at('2026-03-11T06:00'))
    house.clock.moveTo(new Date('2026-03-11T05:00:00Z'))
    await dueReleases(house.platform).releaseDue()
    await work()
    expect(subjects()).toEqual(['Bellows & Reeds: 3 episodes are out'])
  })

  it('chooses what to be written of', async () => {
    await takeAll()
    expect((await house.call('PUT', '/mail', { unwanted: ['released'] })).json()).toMatchObject({
      to: account.email,
      isSent: true,
      unwanted: ['released'],
    })
    await release(await house.makeReady(show.id, 'In silence'))
    await work()
    expect(subjects()).toEqual([])
    expect((await house.call('PUT', '/mail', { unwanted: ['everything'] })).json().faults[0].field).toBe('unwanted.0')
  })
})

describe('an episode that is not ready', () => {
  it('is told of a day before, an hour before and when it is held, each once; goes out as soon as it is ready', async () => {
    await takeAll()
    const episode = await unready('Somewhere else', '2026-03-20T06:00')
    const { noteUnready, releaseDue } = dueReleases(house.platform)
    const later = async (moment: string): Promise<string[]> => {
      house.clock.moveTo(new Date(moment))
      await Promise.all([noteUnready(), noteUnready()])
      await releaseDue()
      await work()
      return subjects()
    }
    expect(await later('2026-03-19T04:59:00Z')).toEqual([])
    expect(await later('2026-03-19T05:01:00Z')).toHaveLength(1)
    expect(await later('2026-03-20T03:59:00Z')).toHaveLength(1)
    expect(await later('2026-03-20T04:01:00Z')).toHaveLength(2)
    expect(await later('2026-03-20T05:01:00Z')).toEqual([
      'Bellows & Reeds: “Somewhere else” was held',
      'Bellows & Reeds: “Somewhere else” comes up within an hour, not ready',
      'Bellows & Reeds: “Somewhere else” comes up within a day, not ready',
    ])
    expect(mails[0]!.text).toContain('has its audio elsewhere, where it does not answer')
    expect(mails[0]!.text).toContain(`/studio/bellows-and-reeds/episodes/${episode.id}`)
    expect(await house.get(episode.id)).toMatchObject({ status: 'scheduled', hindrances: ['not there'] })
    await reachAgain()
    expect((await later('2026-03-20T07:00:00Z'))[0]).toBe('Bellows & Reeds: “Somewhere else” is out')
    expect(await house.get(episode.id)).toMatchObject({ status: 'released', releaseAt: '2026-03-20T05:00:00.000Z' })
  })
})

describe('a mail server', () => {
  const send = async (title: string): Promise<MailState['last'][number]> => {
    await release(await house.makeReady(show.id, title))
    await work()
    return (await state()).last[0]!
  }
  const afterPause = async (): Promise<MailState['last'][number]> => {
    house.clock.moveBy(3 * 3600_000)
    await work()
    return (await state()).last[0]!
  }

  it('that is away is asked again, and the mail arrives', async () => {
    expect(await send('Away')).toMatchObject({ state: 'waiting', problem: expect.stringContaining('ECONNREFUSED') })
    await takeAll()
    expect(await afterPause()).toMatchObject({ state: 'sent' })
    expect(subjects()).toEqual(['Bellows & Reeds: “Away” is out'])
  })

  it('that refuses for now is asked again', async () => {
    await listenWith(socket => socket.end('421 4.3.2 Not now\r\n'))
    expect(await send('Later')).toMatchObject({ state: 'waiting', problem: expect.stringContaining('421') })
  })

  it('that refuses the person for good is not asked again', async () => {
    await listenWith(socket => {
      socket.write('220 here\r\n')
      socket.on('data', data => {
        const word = String(data).slice(0, 4).toUpperCase()
        socket.write(word === 'RCPT' ? '550 5.1.1 No such person\r\n' : '250 Yes\r\n')
      })
    })
    expect(await send('Nobody')).toMatchObject({ state: 'given up', problem: expect.stringContaining('550') })
    expect(await Job.count({ where: { kind: 'send-mail', state: 'open' } })).toBe(0)
  })

  it('that takes half of it and is gone, gets it whole the next time', async () => {
    await listenWith(socket => {
      socket.write('220 here\r\n')
      socket.on('data', data => {
        const text = String(data)
        if (/^(EHLO|HELO|MAIL|RCPT)/i.test(text)) socket.write('250 Yes\r\n')
        else if (/^DATA/i.test(text)) socket.write('354 Go on\r\n')
        else socket.destroy()
      })
    })
    expect(await send('Half')).toMatchObject({ state: 'waiting' })
    await stop()
    await takeAll()
    expect(await afterPause()).toMatchObject({ state: 'sent' })
    expect(mails).toHaveLength(1)
  })

  it('that says nothing holds nobody up for long', async () => {
    await listenWith(() => undefined)
    house.platform.jobs.use({ ...jobList(house.platform), 'send-mail': sendMail(house.platform, 500) })
    expect(await send('Silence')).toMatchObject({
      state: 'waiting',
      problem: expect.stringMatching(/timeout|never received/i),
    })
  }, 30_000)

  it('whose process died after it took a mail gets it again under the same Message-ID', async () => {
    await takeAll()
    await send('Twice')
    await Mail.update({ state: 'waiting' }, { where: {} })
    await Job.update({ state: 'open', runAfter: house.clock.now() }, { where: { kind: 'send-mail' } })
    await work()
    expect(mails).toHaveLength(2)
    expect(new Set(mails.map(({ messageId }) => messageId)).size).toBe(1)
  })

  it('is not needed: without one nothing is written, and nothing waits', async () => {
    const quiet = { ...house.platform, configuration: { ...house.platform.configuration, smtpUrl: null } }
    const { tellPeople } = await import('./tell')
    await release(await house.makeReady(show.id, 'Quiet'))
    await tellPeople(quiet).run(
      { showId: show.id },
      { id: '', progress: () => undefined, signal: new AbortController().signal },
    )
    expect([await Mail.count(), await Notice.count({ where: { toldAt: null } })]).toEqual([0, 0])
  })
})
