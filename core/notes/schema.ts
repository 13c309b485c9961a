import { getSchema } from '@tiptap/core'
import StarterKit, { type StarterKitOptions } from '@tiptap/starter-kit'

/** What notes are made of, in the editor: paragraphs, headings of one level, line breaks, bold, italic, links, lists. */
export const notesKit = (options: Partial<StarterKitOptions> = {}) =>
  StarterKit.configure({
    heading: { levels: [3] },
    blockquote: false,
    code: false,
    codeBlock: false,
    horizontalRule: false,
    strike: false,
    underline: false,
    // It would write an empty paragraph behind a list at the first click.
    trailingNode: false,
    link: {
      openOnClick: false,
      defaultProtocol: 'https',
      protocols: ['http', 'https', 'mailto'],
      HTMLAttributes: { target: null, rel: null },
    },
    ...options,
  })

/** The same, wherever notes are read: what this has no place for is no part of notes. */
export const notesSchema = getSchema([notesKit()])

/** How notes are read by it: spaces stay as they were typed. */
export const notesReading = { preserveWhitespace: true } as const

/** HTML, ready to be read so: where a line of it ends is a space, and no line break. */
export const onOneLine = (html: string): string => html.replace(/[\r\n]\s*/g, ' ')
