/** What a file says about its episode, through its tags and its name. */
export interface FileHints {
  fileName: string
  tags: { title?: string | null; track?: number | null }
}

const leadingNumber = /^(?:(?:episode|ep|e|folge|no|nr|#)[\s._-]*)?0*(\d{1,4})(?=$|[\s._:–—-])[\s._:–—-]*/i
const showPrefix = /^.*?[\s._-](?=(?:episode|ep|folge)[\s._-]*\d)/i

/** Title and number for a new episode: from the tags, else from the file's name. The title may be empty. */
export function prefillFrom({ fileName, tags }: FileHints): { title: string; number: number | null } {
  const stem = fileName.replace(/\.[a-z0-9]{1,5}$/i, '').replace(showPrefix, '')
  const found = leadingNumber.exec(stem)
  const rest = (found ? stem.slice(found[0].length) : stem).replace(/[_\s]+/g, ' ').replace(/(?<=\S)-(?=\S)/g, ' ').trim()
  const title = tags.title?.trim() || sentenceCase(rest)
  const number = tags.track ?? (found ? Number(found[1]) : null)
  return { title, number: number && number > 0 ? number : null }
}

function sentenceCase(words: string): string {
  return words === words.toLowerCase() ? words.charAt(0).toUpperCase() + words.slice(1) : words
}
