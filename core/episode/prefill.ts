import { cut, oneLine } from '../words/line'

/** What a file says about its episode, through its tags and its name. */
export interface FileHints {
  fileName: string
  tags: { title?: string | null; track?: number | null }
}

const leadingNumber = /^(?:(?:episode|ep|e|folge|no|nr|#)[\s._-]*)?0*(\d{1,4})(?=$|[\s._:–—-])[\s._:–—-]*/i
const showPrefix = /^.*?[\s._-](?=(?:episode|ep|folge)[\s._-]*\d)/i

/** A number that an episode can have. */
const longestTitle = 300
const highestNumber = 99_999

/** Title and number for a new episode: from the tags, else from the file's name. The title may be empty; a number that no episode can have is left out. */
export function prefillFrom({ fileName, tags }: FileHints): { title: string; number: number | null } {
  const stem = fileName.replace(/\.[a-z0-9]{1,5}$/i, '').replace(showPrefix, '')
  const found = leadingNumber.exec(stem)
  const rest = (found ? stem.slice(found[0].length) : stem)
    .replace(/[_\s]+/g, ' ')
    .replace(/(?<=\S)-(?=\S)/g, ' ')
    .trim()
  const title = cut(oneLine(tags.title?.trim() || sentenceCase(rest)), longestTitle)
  const number = [tags.track, found ? Number(found[1]) : null].find(each => each && each > 0 && each <= highestNumber)
  return { title, number: number ?? null }
}

function sentenceCase(words: string): string {
  return words === words.toLowerCase() ? words.charAt(0).toUpperCase() + words.slice(1) : words
}
