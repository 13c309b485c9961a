import type { Passage } from './passages'
import { isMeant, type Query } from './query'
import { type Token, tokensOf } from './tokens'

/** The sentence of a passage that has most of what was looked for. */
export interface Excerpt {
  parts: { text: string; isHit: boolean }[]
  /** When it begins to be said; null where that is not known. */
  fromMs: number | null
}

/** So many letters of a sentence are shown, from a little before the first hit. */
const longestExcerpt = 240
const before = 60
/** A sentence with the space behind it. */
const sentence = /[^.!?…。！？]*(?:[.!?…。！？]+["”’»)\]]*\s*|$)/gu

export function excerptOf({ text, times }: Pick<Passage, 'text' | 'times'>, query: Query): Excerpt {
  const hits = tokensOf(text).filter(token => query.words.some(word => isMeant(token, word)))
  const best = bestSentence(text, hits, query)
  const within = ({ from, to }: Stretch) => hits.filter(hit => hit.from >= from && hit.from < to)
  const shown = shortened(text, best, within(best)[0]?.from ?? best.from)
  return {
    parts: marked(text, shown, within(shown)),
    fromMs: times.findLast(([at]) => at <= shown.from)?.[1] ?? times[0]?.[1] ?? null,
  }
}

interface Stretch {
  from: number
  to: number
}

/** The first of the sentences that have the most of the words; hits and sentences are gone through once, as they stand. */
function bestSentence(text: string, hits: readonly Token[], { words }: Query): Stretch {
  let best: Stretch = { from: 0, to: text.length }
  let most = -1
  let next = 0
  for (const { 0: said, index: from } of text.matchAll(sentence)) {
    if (said === '') continue
    const to = from + said.length
    const different = new Set<string>()
    for (; next < hits.length && hits[next]!.from < to; next++)
      for (const word of words) if (isMeant(hits[next]!, word)) different.add(word)
    if (different.size <= most) continue
    best = { from, to }
    most = different.size
  }
  return best
}

/** The part of a long sentence that has its first hit, cut between words. */
function shortened(text: string, { from, to }: Stretch, hitAt: number) {
  if (to - from <= longestExcerpt) return { from, to, isCutBefore: false, isCutBehind: false }
  const wanted = Math.max(from, hitAt - before)
  const space = text.indexOf(' ', wanted)
  const begin = wanted === from || space < 0 || space > hitAt ? wanted : space + 1
  const most = Math.min(to, begin + longestExcerpt)
  const lastSpace = text.lastIndexOf(' ', most)
  const end = most === to || lastSpace <= hitAt ? most : lastSpace
  return { from: begin, to: end, isCutBefore: begin > from, isCutBehind: end < to }
}

function marked(
  text: string,
  { from, to, isCutBefore, isCutBehind }: ReturnType<typeof shortened>,
  hits: readonly { from: number; to: number }[],
): Excerpt['parts'] {
  const parts: Excerpt['parts'] = []
  const add = (words: string, isHit: boolean): void => {
    if (words !== '') parts.push({ text: words, isHit })
  }
  let at = from
  add(isCutBefore ? '… ' : '', false)
  for (const hit of hits) {
    add(text.slice(at, Math.max(at, hit.from)), false)
    const hitWords = text.slice(Math.max(at, hit.from), Math.min(hit.to, to))
    const last = parts.at(-1)
    // Words that nothing parts are one, such as the pairs of letters of writings without spaces.
    if (last?.isHit) last.text += hitWords
    else add(hitWords, true)
    at = Math.max(at, Math.min(hit.to, to))
  }
  add(text.slice(at, to).trimEnd(), false)
  add(isCutBehind ? ' …' : '', false)
  return parts
}
