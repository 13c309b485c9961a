import { plainNotes } from '../notes/plain'

/** A timestamp of a sound, with words for it. */
export interface Mark {
  fromMs: number
  title: string
}

/** Marks of direction that stand around times in languages that are written right to left. */
const directionMarks = /[\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]/g
/** Where the ten digits of other scripts begin (Unicode, general category Nd). */
const digitsFrom = [0x0660, 0x06f0, 0x0966, 0x09e6, 0xff10]
const otherDigits = /[\u0660-\u0669\u06f0-\u06f9\u0966-\u096f\u09e6-\u09ef\uff10-\uff19]/g

function withPlainDigits(line: string): string {
  return line.replace(otherDigits, digit => {
    const code = digit.charCodeAt(0)
    return String(code - digitsFrom.findLast(first => first <= code)!)
  })
}

const mostLineLetters = 500

const timestamp = /(?:(\d{1,2}):)?(\d{1,3}):(\d{2})(?:[.,](\d{1,3}))?/g
/** Between the two timestamps of a stretch, such as `5:00–7:30`. */
const between = /^\s?(?:-|–|—|to)\s?$/
const bullet = /^[–•*-]\s/
const beforeIt = /^[([]?$/
const behindIt = /^[)\]]?[\s:–—-]+(?=\S)/
/** Where words stand first, the timestamp is in brackets or behind a dash. */
const setOff = /\s?(?:[–—-]\s?|[([])$/

/** The mark that a line stands for, such as `5:00 the news`, `[1:02:09] letters` or `Wax (0:30)`; null for others. */
export function markOf(line: string): Mark | null {
  const words = withPlainDigits(line.slice(0, mostLineLetters)).replace(directionMarks, '').trim().replace(bullet, '')
  const timestamps = [...words.matchAll(timestamp)]
  const [first] = timestamps
  if (!first) return null
  const endOf = (at: number): number => {
    const [one, other] = [timestamps[at]!, timestamps[at + 1]]
    const end = one.index + one[0].length
    return other && between.test(words.slice(end, other.index)) ? other.index + other[0].length : end
  }
  const rest = words.slice(endOf(0))
  if (beforeIt.test(words.slice(0, first.index)) && behindIt.test(rest)) return mark(first, rest.replace(behindIt, ''))
  const last = timestamps.findIndex((_timestamp, at) => /^[)\]]?$/.test(words.slice(endOf(at))))
  if (last < 0) return null
  const title = words.slice(0, timestamps[last]!.index)
  return setOff.test(title) ? mark(timestamps[last]!, title.replace(setOff, '')) : null
}

function mark([, hours = '0', minutes, seconds, thousandths = '0']: RegExpMatchArray, words: string): Mark | null {
  const title = words.trim()
  if (!title || Number(seconds) > 59) return null
  const wholeSeconds = (Number(hours) * 60 + Number(minutes)) * 60 + Number(seconds)
  return { fromMs: wholeSeconds * 1000 + Number(thousandths.padEnd(3, '0')), title }
}

/** The marks of a text, line by line, as they are written. */
export const marksIn = (plain: string): Mark[] => plain.split('\n').flatMap(line => markOf(line) ?? [])

const areInOrder = (marks: readonly Mark[]): boolean =>
  marks.every(({ fromMs }, index) => index === 0 || fromMs > marks[index - 1]!.fromMs)

/** What the times in notes are: chapters where there are two or more, ever later; a single one is a remark. */
export function marksInNotes(notesHtml: string): { marks: Mark[]; are: 'chapters' | 'out of order' | 'none' } {
  const marks = marksIn(plainNotes(notesHtml))
  if (marks.length < 2) return { marks: [], are: 'none' }
  return areInOrder(marks) ? { marks, are: 'chapters' } : { marks: [], are: 'out of order' }
}
