import { expect, it } from 'vitest'
import { readLinks } from './links'

it.each([
  ['The list, https://lake.example/list', 'The list', 'https://lake.example/list'],
  ['https://lake.example/list', '', 'https://lake.example/list'],
  ['• Odile (https://lake.example/odile).', 'Odile', 'https://lake.example/odile'],
  ['Chapel – www.chapel.example', 'Chapel', 'https://www.chapel.example'],
  ['https://lake.example/a: the first', 'the first', 'https://lake.example/a'],
])('%s', (line, words, address) => expect(readLinks(line).links).toEqual([{ words, address }]))

it('lines without an address are told apart, and each address comes once', () =>
  expect(readLinks('a https://a.example\nnothing here\n\nb https://a.example\r\n')).toEqual({
    links: [{ words: 'b', address: 'https://a.example' }],
    unread: ['nothing here'],
  }))

it('a thousand lines are a thousand links', () =>
  expect(
    readLinks(Array.from({ length: 1000 }, (_, n) => `Link ${n}, https://lake.example/${n}`).join('\n')).links,
  ).toHaveLength(1000))
