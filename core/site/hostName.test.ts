import { expect, it } from 'vitest'
import { hostNameFault, hostNameFrom } from './hostName'

const faultOf = (words: string): string | null => hostNameFault(hostNameFrom(words), 'lake.example')

it.each([
  ['reeds.example', 'reeds.example'],
  [' HTTPS://Reeds.Example/ ', 'reeds.example'],
  ['münchen.example', 'xn--mnchen-3ya.example'],
  ['a.b.c.example.', 'a.b.c.example'],
])('%s is the host %s', (words, host) => {
  expect([hostNameFrom(words), faultOf(words)]).toEqual([host, null])
})

it.each([
  '',
  'reeds',
  'localhost',
  'printer.local',
  'db.internal',
  'a.localhost',
  'lake.example',
  'show.lake.example',
  '127.0.0.1',
  '0x7f.1',
  '2130706433',
  '[::1]',
  '::1',
  'reeds.example:8080',
  'reeds.example/feed',
  'name:word@reeds.example',
  'reeds_example.org',
  '-reeds.example',
  'reeds..example',
  'x'.repeat(64) + '.example',
  'a.'.repeat(130) + 'example',
  'two words.example',
  'javascript:alert(1)',
])('%s is refused', words => {
  expect(faultOf(words)).not.toBeNull()
})
