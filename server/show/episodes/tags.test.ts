import { chaptersOf } from '@core/chapters/chapters'
import { expect, it } from 'vitest'
import { type EpisodeText, episodeFields, fields, unsetText } from '@core/episode/fields'
import type { Show } from '../shows/models'
import type { Episode } from './models'
import type { Tags } from '../../media/files/tags'
import { tagsFor } from './tags'

/** The ID3v2.4 frame (id3.org, ID3v2.4.0 native frames, section 4) that each is written as. */
const frames: Partial<Record<keyof Tags, string>> = {
  title: 'TIT2',
  subtitle: 'TIT3',
  artist: 'TPE1',
  track: 'TRCK',
  comment: 'COMM',
  keywords: 'TXXX',
  people: 'TXXX',
  artworkId: 'APIC',
  chapters: 'CHAP',
}
const text: EpisodeText = { ...unsetText, title: 'Before', number: 1, season: 3, notes: '<p>Before</p>' }
const changes: EpisodeText = {
  title: 'After',
  number: 2,
  season: 4,
  kind: 'bonus',
  hook: 'Listen',
  notes: '<p>After</p>',
  tags: ['reeds'],
  people: [{ name: 'Odile', role: 'Guest', address: null }],
  links: [{ words: 'The list', address: 'https://lake.example' }],
  chapters: [{ id: 'a', fromMs: 0, title: 'The quay', address: null, pictureId: null, isListed: true }],
  soundbites: [{ id: 'a', fromMs: 1000, toMs: 21_000, title: 'The bell' }],
  mix: { version: 1, pieces: [], beds: [] },
  artworkId: 'a'.repeat(64),
  extras: { ...unsetText.extras, author: 'Odile' },
}
const show = { author: 'A', name: 'B', zone: 'UTC', artworkId: 'c', slug: 's', titlePattern: '{title}' } as Show

const tags = (written: EpisodeText): Tags =>
  tagsFor(
    { ...written, releaseAt: null, slug: null } as Episode,
    show,
    'http://lake.example',
    new Date(0),
    chaptersOf(written, []).chapters,
  )

it.each(episodeFields)('a change of %s changes the tag that the registry names, and no other', field => {
  const [before, after] = [tags(text), tags({ ...text, [field]: changes[field] })]
  const changed = (Object.keys(before) as (keyof Tags)[]).filter(
    tag => JSON.stringify(before[tag]) !== JSON.stringify(after[tag]),
  )
  expect(changed.map(tag => frames[tag])).toEqual([fields[field].appears.tag ?? []].flat())
})
