import { expect, it } from 'vitest'
import { csv } from './csv'

// RFC 4180 section 2, rules 1, 5, 6 and 7 with its own examples.
it.each([
  [
    [
      ['aaa', 'bbb'],
      ['zzz', 7],
    ],
    'aaa,bbb\r\nzzz,7\r\n',
  ],
  [[['aaa', 'b\r\nbb', 'ccc']], 'aaa,"b\r\nbb",ccc\r\n'],
  [[['aaa', 'b"bb', 'c,c']], 'aaa,"b""bb","c,c"\r\n'],
  [
    [['=HYPERLINK("https://trap.example")', '+1', '-', '@SUM(1)']],
    '"\'=HYPERLINK(""https://trap.example"")",\'+1,\'-,\'@SUM(1)\r\n',
  ],
])('%j', (rows, text) => expect(csv(rows)).toBe(text))
