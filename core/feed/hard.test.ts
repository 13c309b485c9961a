import { execFileSync } from 'node:child_process'
import { parseRssFeed } from 'feedsmith'
import { describe, expect, it } from 'vitest'
import { itemDescription, mostDescriptionBytes } from './description'
import { channel, whole } from './full.fixture'
import { feedJson } from './json'
import type { FeedModel } from './model'
import { itemOf, modelOf } from './model.fixture'
import { readFeed } from './read'
import { feedXml } from './xml'

/** Every character that XML 1.0 section 2.2 has no place for, and what ends sections, tags and attributes. */
const hard = [
  ...Array.from({ length: 0x20 }, (_none, code) => String.fromCharCode(code)),
  '\ud83e',
  '\udc00',
  '\ufffe',
  '\uffff',
  ']]>',
  '</rss>',
  '<![CDATA[',
  '-->',
  '"\'&amp;&#0;',
  '🪗',
].join('x')
const kept = hard.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|\p{Cs}/gu, '')

/** The same with something hard in each text that is free. */
function hardened<T>(value: T): T {
  if (typeof value === 'string') return `${value}${hard}` as T
  if (Array.isArray(value)) return value.map(hardened) as T
  if (value === null || typeof value !== 'object' || value instanceof Date) return value
  return Object.fromEntries(
    Object.entries(value).map(([name, each]) => [name, name === 'role' ? each : hardened(each as unknown)]),
  ) as T
}
const isWellFormed = (xml: string): boolean =>
  execFileSync('xmllint', ['--noout', '--huge', '-'], { input: xml, encoding: 'utf8' }) === ''

describe('a feed of what no feed should hold', () => {
  const model = hardened<FeedModel>({ ...whole, channel })
  const [wrote] = model.items

  it('is well-formed in each of its fields, and as JSON', () => {
    const xml = feedXml(model)
    expect(isWellFormed(xml)).toBe(true)
    expect(readFeed(xml).document.fault).toBeNull()
    expect((JSON.parse(feedJson(model)) as { items: unknown[] }).items).toHaveLength(1)
  })

  it('tells all that can be told of it, by a reader that is not ours', () => {
    const [item] = parseRssFeed(feedXml(model)).items!
    const without = (text: string): string => text.replace(hard, kept)
    expect(item!.title).toBe(without(wrote!.title))
    expect(item!.description).toBe(without(wrote!.description))
    expect(item!.guid!.value).toBe(without(wrote!.guid))
    expect(item!.itunes!.subtitle ?? item!.itunes!.summary).toBe(without(wrote!.hook))
    expect(item!.podcast!.persons![0]!.display).toBe(without(wrote!.people[0]!.name))
  })

  it('holds 10,000 items, each once', () => {
    const items = Array.from({ length: 10_000 }, (_none, n) =>
      itemOf({ title: `Crossing ${n} ${hard}`, notesHtml: `<p>${n} ]]&gt; ${hard}</p>` }),
    )
    const xml = feedXml(modelOf(items))
    expect(isWellFormed(xml)).toBe(true)
    const read = readFeed(xml).items
    expect(new Set(read.map(({ children }) => children.find(({ name }) => name === 'guid')!.text)).size).toBe(10_000)
  })

  // Four bytes each in UTF-8, two code units in memory: where a limit falls into one it goes as a whole.
  it.each([-3, -2, -1, 0, 1])('cuts a description between letters, %i bytes from its limit', by => {
    const cut = itemDescription('a'.repeat(4 + by) + '🪗'.repeat(mostDescriptionBytes / 4))
    expect(cut.isWellFormed()).toBe(true)
    expect(Buffer.byteLength(cut)).toBeLessThanOrEqual(mostDescriptionBytes)
    expect(Buffer.byteLength(cut)).toBeGreaterThan(mostDescriptionBytes - 8)
  })
})
