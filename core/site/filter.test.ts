import fc from 'fast-check'
import { expect, it } from 'vitest'
import { embedCode, embedQuery, readEmbedTheme } from './embed'
import { everyEpisode, filterQuery, passes, readFilter } from './filter'

it('a choice of episodes has one spelling behind an address', () => {
  const filter = { season: 2, year: 2026, strand: 'only-reeds', tag: 'hide glue & wax', page: 3 }
  expect(filterQuery(filter)).toBe('?season=2&year=2026&strand=only-reeds&tag=hide+glue+%26+wax&page=3')
  expect(readFilter(filterQuery(filter).slice(1))).toEqual(filter)
  expect(filterQuery(everyEpisode)).toBe('')
})

it.each(['', 'season=', 'season=0&year=-1&page=0', 'season=1e3', 'season=99999', 'utm=x', 'page=9999999', '%E0%A4%A'])(
  'what cannot be a choice counts as none: %s',
  query => {
    expect(readFilter(query)).toEqual(everyEpisode)
  },
)

it('whatever stands there, its spelling is read as itself', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), query => {
      const filter = readFilter(query)
      expect(readFilter(filterQuery(filter).slice(1))).toEqual(filter)
    }),
  )
})

it('a tag is chosen however it is written', () => {
  const episode = { season: null, year: 2026, tagKeys: ['reed'], strands: [] }
  expect(passes({ ...everyEpisode, tag: 'Réeds' }, episode)).toBe(true)
  expect(passes({ ...everyEpisode, tag: 'wax' }, episode)).toBe(false)
})

it('a player for another page has one spelling of its look, and code that nothing can break out of', () => {
  expect(embedQuery(readEmbedTheme('accent=FF9900&scheme=dark&x=1'))).toBe('?scheme=dark&accent=ff9900')
  expect(embedQuery(readEmbedTheme('accent=red;}body{&scheme=neon'))).toBe('')
  expect(embedCode('https://lake.example/a/embed', '"><script>', { width: 320, height: 370 })).toBe(
    '<iframe src="https://lake.example/a/embed" title="&quot;&gt;&lt;script&gt;" width="320" height="370" style="border:0;max-width:100%" loading="lazy" allow="autoplay"></iframe>',
  )
})
