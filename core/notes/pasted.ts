import { escapeText, escapeUTF8 } from 'entities'
import { parseHtml } from '../xml/html'

/** What a tag of another program stands for in notes; of all others only the words are taken. */
const inline: Readonly<Record<string, 'strong' | 'em'>> = { b: 'strong', strong: 'strong', i: 'em', em: 'em' }
const blocks = new Set(
  'p div section article header footer main aside blockquote pre table tr dl dt dd figure figcaption address center form fieldset'.split(
    ' ',
  ),
)
const headings = /^h[1-6]$/
/** What is not words, whatever stands in it. */
const silent = new Set(
  'script style head title meta link template noscript iframe object svg math button select textarea xml'.split(' '),
)

type Mark = 'strong' | 'em' | 'a'
interface Open {
  name: string
  marks: readonly Mark[]
  href: string | null
}

/**
 * What another program put on the clipboard, as notes: paragraphs, bold, italic, links, lists, headings of one level. Word
 * processors write bold and italic as styles, and lists as paragraphs with a sign in front.
 */
export function pastedNotes(html: string): string {
  const writer = notesWriter()
  // Some programs put what was copied between two comments, and much of their own around it.
  const source = /<!--StartFragment-->([^]*)<!--EndFragment-->/.exec(html)?.[1] ?? html
  let quiet = 0
  const open: Open[] = []
  parseHtml(source, {
    onopentag(name, attributes) {
      if (silent.has(name) || name.includes(':')) {
        quiet += silent.has(name) ? 1 : 0
        open.push({ name, marks: [], href: null })
        return
      }
      const marks = marksOf(name, attributes.style ?? '')
      const href = name === 'a' ? linkable(attributes.href) : null
      open.push({ name, marks, href })
      if (quiet > 0) return
      if (name === 'br') writer.breakLine()
      else if (name === 'ul' || name === 'ol') writer.openList(name)
      else if (name === 'li') writer.openBlock('li')
      else if (headings.test(name)) writer.openBlock('h3')
      else if (blocks.has(name)) writer.openBlock(isListParagraph(attributes) ? 'listed' : 'p')
      else if (name === 'td' || name === 'th') writer.space()
    },
    ontext(words) {
      if (quiet > 0) return
      const active = open.flatMap(({ marks }) => marks)
      const href = open.findLast(each => each.href)?.href ?? null
      writer.write(words, active.includes('strong'), active.includes('em'), href)
    },
    onclosetag(name) {
      const at = open.findLastIndex(each => each.name === name)
      if (at < 0) return
      open.splice(at)
      if (silent.has(name)) quiet--
      else if (quiet > 0) return
      else if (name === 'ul' || name === 'ol') writer.closeList()
      else if (name === 'li' || headings.test(name) || blocks.has(name)) writer.closeBlock()
    },
  })
  return writer.end()
}

function marksOf(name: string, style: string): Mark[] {
  const marks: Mark[] = []
  const weight = /font-weight:\s*(\w+)/i.exec(style)?.[1]
  const isBold = weight ? /^(bold|bolder|[6-9]00)$/i.test(weight) : inline[name] === 'strong'
  const slant = /font-style:\s*(\w+)/i.exec(style)?.[1]
  const isItalic = slant ? /^(italic|oblique)$/i.test(slant) : inline[name] === 'em'
  if (isBold) marks.push('strong')
  if (isItalic) marks.push('em')
  return marks
}

const linkable = (href: string | undefined): string | null =>
  href && /^(https?:\/\/|mailto:)\S+$/i.test(href.trim()) ? href.trim() : null

const isListParagraph = ({ class: names = '', style = '' }: Record<string, string>): boolean =>
  /ListParagraph|ListBullet|ListNumber/i.test(names) || /mso-list:(?!\s*ignore)/i.test(style)

/** The sign that stands in front of an item of a list that is written as a paragraph. */
const listSign = /^\s*(?:([·•◦▪§o–*-])|(\d{1,3}|[a-z])[.)])[\s\u00a0]+/i

interface Run {
  words: string
  isBold: boolean
  isItalic: boolean
  href: string | null
}

type Kind = 'p' | 'li' | 'h3' | 'listed'

/** Puts blocks and lists together out of what comes, whatever is open or closed out of turn. */
function notesWriter() {
  const parts: { tag: 'p' | 'h3' | 'ul' | 'ol'; html: string }[] = []
  const lists: ('ul' | 'ol')[] = []
  let runs: Run[] = []
  let kind: Kind = 'p'

  function flush(): void {
    const words = runs.map(run => run.words).join('')
    if (/[^\s\u00a0]/.test(words)) {
      const sign = kind === 'listed' ? listSign.exec(words) : null
      const isItem = kind === 'li' || kind === 'listed'
      const list = kind === 'li' ? (lists.at(-1) ?? 'ul') : sign?.[2] ? 'ol' : 'ul'
      const html = inlineHtml(sign ? withoutStart(runs, sign[0].length) : runs)
      if (isItem) item(list, html)
      else parts.push({ tag: kind === 'h3' ? 'h3' : 'p', html })
    }
    runs = []
  }

  function item(list: 'ul' | 'ol', html: string): void {
    const last = parts.at(-1)
    if (last?.tag === list) last.html += `<li>${html}</li>`
    else parts.push({ tag: list, html: `<li>${html}</li>` })
  }

  return {
    write(words: string, isBold: boolean, isItalic: boolean, href: string | null): void {
      runs.push({ words: words.replace(/[\s\u00a0]+/g, ' '), isBold, isItalic, href })
    },
    space: (): void => void runs.push({ words: ' ', isBold: false, isItalic: false, href: null }),
    breakLine: (): void => void runs.push({ words: '\n', isBold: false, isItalic: false, href: null }),
    openBlock(next: Kind): void {
      // A paragraph within an item or a heading is no block of its own.
      if (next === 'p' && (kind === 'li' || kind === 'h3') && runs.length === 0) return
      flush()
      kind = next
    },
    closeBlock(): void {
      flush()
      kind = lists.length > 0 ? 'li' : 'p'
    },
    openList(list: 'ul' | 'ol'): void {
      flush()
      lists.push(list)
      kind = 'li'
    },
    closeList(): void {
      flush()
      lists.pop()
      kind = lists.length > 0 ? 'li' : 'p'
    },
    end(): string {
      flush()
      return parts.map(({ tag, html }) => `<${tag}>${html}</${tag}>`).join('')
    },
  }
}

/** Runs without so many letters at their beginning. */
function withoutStart(runs: readonly Run[], letters: number): Run[] {
  let left = letters
  return runs.flatMap(run => {
    const words = run.words.slice(left)
    left = Math.max(0, left - run.words.length)
    return words ? [{ ...run, words }] : []
  })
}

function inlineHtml(runs: readonly Run[]): string {
  const tidy = joined(runs)
  return tidy
    .map(({ words, isBold, isItalic, href }) => {
      let html = words.split('\n').map(escapeText).join('<br>')
      if (!/\S/.test(words)) return html
      if (isItalic) html = `<em>${html}</em>`
      if (isBold) html = `<strong>${html}</strong>`
      return href ? `<a href="${escapeUTF8(href)}">${html}</a>` : html
    })
    .join('')
}

/** Runs of one form as one, single spaces, none at the ends. */
function joined(runs: readonly Run[]): Run[] {
  const together: Run[] = []
  for (const run of runs) {
    const last = together.at(-1)
    const isSame = last && last.isBold === run.isBold && last.isItalic === run.isItalic && last.href === run.href
    if (isSame) last.words += run.words
    else together.push({ ...run })
  }
  let before = ' '
  for (const run of together) {
    run.words = tight(run.words)
    if (/[ \n]$/.test(before)) run.words = run.words.replace(/^ +/, '')
    if (run.words) before = run.words
  }
  const filled = together.filter(({ words }) => words !== '')
  const last = filled.at(-1)
  if (last) last.words = last.words.trimEnd()
  const first = filled[0]
  if (first) first.words = first.words.trimStart()
  return filled.filter(({ words }) => words !== '')
}

/** Single spaces, and none around line breaks. */
const tight = (words: string): string =>
  words
    .split('\n')
    .map((line, at, all) => {
      const from = at > 0 ? line.trimStart() : line
      return at < all.length - 1 ? from.trimEnd() : from
    })
    .join('\n')
    .replace(/ {2,}/g, ' ')
