import { describe, expect, it } from 'vitest'
import { isMisspelt, linkedAddresses } from './addresses'

it('finds each address that notes link to once', () => {
  expect(
    linkedAddresses(
      '<p><a href="https://lake.example/?a=1&amp;b=2">a</a> <a>b</a> <a href="">c</a></p><p><a href="mailto:a@lake.example">d</a> <a href="https://lake.example/?a=1&amp;b=2">e</a></p>',
    ),
  ).toEqual(['https://lake.example/?a=1&b=2', 'mailto:a@lake.example'])
})

describe('an address', () => {
  it.each([
    'https://lake.example/list',
    'http://xn--bcher-kva.example',
    'https://bücher.example',
    'mailto:reeds@lindenwick.example',
    'mailto:reeds@lindenwick.example?subject=Reeds',
    'https://[2001:db8::1]/x',
    'https://192.0.2.7/x',
  ])('%s can be one', address => expect(isMisspelt(address)).toBe(false))
  it.each([
    'https://lake',
    'https://http//lake.example',
    'https://https.//lake.example',
    'htps://lake.example',
    'https://lake..example',
    'https:// lake.example',
    'mailto:reeds',
    'mailto:reeds@lindenwick',
    'lake.example',
  ])('%s cannot', address => expect(isMisspelt(address)).toBe(true))
})
