import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compareFeeds, comparisonWords, isMoreThanComing } from './compare'
import type { ReleasedItem } from './model'
import { itemOf, modelOf } from './model.fixture'
import { readFeed } from './read'
import { feedXml } from './xml'

const seven = itemOf({ number: 7, bareTitle: 'The quay' })
const eight = itemOf({ number: 8, bareTitle: 'The boat', publishedAt: new Date('2026-03-12T05:00:00Z') })
const read = (items: ReleasedItem[], show: object = {}) => {
  const model = modelOf(items)
  return readFeed(feedXml({ ...model, channel: { ...model.channel, ...show } }))
}
const words = (earlier: ReleasedItem[], later: ReleasedItem[], show: object = {}): string[] =>
  comparisonWords(compareFeeds(read(earlier), read(later, show)))

describe('two states of a feed', () => {
  it('are told apart by what they mean', () => {
    const changed = { ...seven, notesHtml: '<p>Other words.</p>', artworkAddress: 'https://lake.example/7.jpg' }
    expect(words([seven], [changed], { description: 'Something else.' })).toEqual([
      'Episode 7: notes changed; artwork added.',
      'Show: description changed.',
      'Apps will not show episode 7 as new.',
    ])
    expect(words([seven], [eight, seven])).toEqual(['New: episode 8.'])
    expect(isMoreThanComing(words([seven], [eight, seven]))).toBe(false)
    expect(isMoreThanComing(words([seven], [eight, changed]))).toBe(true)
    expect(words([eight, seven], [seven])).toEqual(['Taken out: episode 8.'])
    expect(words([eight, seven], [seven, eight])).toEqual(['The episodes come in another order.'])
    expect(words([seven], [{ ...seven, publishedAt: new Date('2026-03-01T05:00:00Z') }])[0]).toBe(
      'Episode 7: date changed.',
    )
  })

  it('do not take another site for another picture, though the picture’s element names it', () =>
    expect(words([seven], [seven], { link: 'https://reeds.example/' })[0]).not.toContain('artwork'))

  it('say when apps would take an episode for new that is none', () =>
    expect(words([eight, seven], [eight, { ...seven, guid: 'another' }])).toEqual([
      'Apps show episode 7 as new, since the GUID is another.',
    ]))

  it('are the same where only the time of writing differs', () =>
    expect(words([seven], [seven], { changedAt: new Date() })).toEqual(['Nothing that listeners would notice.']))

  it('show what stood there and what stands there now', () => {
    const { changed } = compareFeeds(read([seven]), read([{ ...seven, hook: 'Why it creaks' }]))
    expect(changed[0]!.differences).toEqual([{ what: 'hook', how: 'added', earlier: null, later: 'Why it creaks' }])
  })

  // Identity: whatever is edited, no GUID and no date but the one that was edited becomes another.
  it('never differ in a GUID, whatever is edited', () => {
    const edit = fc.record(
      {
        bareTitle: fc.string(),
        title: fc.string(),
        hook: fc.string(),
        notesHtml: fc.string(),
        number: fc.option(fc.integer({ min: 1, max: 999 })),
        season: fc.option(fc.integer({ min: 1, max: 99 })),
        kind: fc.constantFrom('full', 'trailer', 'bonus'),
        explicit: fc.boolean(),
        tags: fc.array(fc.string()),
      },
      { requiredKeys: [] },
    )
    fc.assert(
      fc.property(edit, edit, (one, other) => {
        const comparison = compareFeeds(
          read([eight, seven]),
          read([
            { ...eight, ...(one as object) },
            { ...seven, ...(other as object) },
          ]),
        )
        expect([comparison.added, comparison.removed, comparison.renewed]).toEqual([[], [], []])
        for (const { differences } of comparison.changed)
          expect(differences.map(({ what }) => what)).not.toContain('date')
      }),
      { numRuns: 60 },
    )
  })
})
