import { expect, it } from 'vitest'
import { mailOf } from './notices'

const show = { name: 'Slow Ferry', zone: 'Europe/Zurich' }
const episode = {
  title: 'The morning boat',
  hindrances: [],
  address: 'https://lake.example/slow-ferry/the-morning-boat',
}

it('a mail says by the show’s clock when something went out', () => {
  const { subject, text } = mailOf('released', show, [{ ...episode, moment: new Date('2026-11-27T05:00:00Z') }])
  expect(subject).toBe('Slow Ferry: “The morning boat” is out')
  expect(text).toContain('The morning boat\nFri 27 Nov 2026, 06:00 in Europe/Zurich\nhttps://lake.example/')
})

it('a mail about what listeners wrote within an hour says no moment, which would be that of none of them', () => {
  const { text } = mailOf('commented', show, [{ ...episode, moment: null }])
  expect(text).toContain('The morning boat\nhttps://lake.example/')
  expect(text).not.toContain('Zurich')
})
