import { escapeText, escapeUTF8 } from 'entities'
import type { Mark } from '../chapters/marks'
import type { Link, Person } from '../episode/fields'
import { clock } from '../words/amounts'

/** What notes and a show's template for them may name, to be filled in as the episode is. */
export const noteFields = ['title', 'hook', 'guests', 'links', 'chapters', 'show link'] as const
type NoteField = (typeof noteFields)[number]

/** What an episode has for the fields of its notes. */
export interface NoteValues {
  title: string
  hook: string
  people: readonly Person[]
  links: readonly Link[]
  chapters: readonly Mark[]
  show: { name: string; address: string }
}

/** So many fields are filled in; each can be a list of a thousand chapters. */
const mostFields = 50
const named = /\{([a-z ]{1,20})\}/g
const isField = (name: string): name is NoteField => (noteFields as readonly string[]).includes(name)

/** What is wrong with a template; null where nothing is. */
export function templateFault(html: string): string | null {
  const unknown = [...html.matchAll(named)].map(([, name]) => name!).find(name => !isField(name))
  return unknown === undefined
    ? null
    : `There is no field {${unknown}}; there are ${noteFields.map(name => `{${name}}`).join(', ')}.`
}

/** The fields that notes name. */
export const fieldsIn = (html: string): NoteField[] => [
  ...new Set([...html.matchAll(named)].map(([, name]) => name!).filter(isField)),
]

/** Whether somebody is a guest rather than one of the makers. */
export const isGuest = ({ role }: Pick<Person, 'role'>): boolean => role === 'Guest' || role === 'Guest Host'

/**
 * Clean notes with their fields filled in, clean again: within a line as words and links; a block that holds nothing but a
 * field as a list, where there are several; a block whose only field has nothing to say goes.
 */
export function fillNotes(html: string, values: NoteValues): string {
  const known = new Map<NoteField, string[]>()
  let filled = 0
  /** What a field has to say; null where so many were filled in already that this one stays as it is written. */
  const parts = (name: NoteField): string[] | null => {
    if (++filled > mostFields) return null
    if (!known.has(name)) known.set(name, partsOf(name, values))
    return known.get(name)!
  }
  return html
    .replace(/<(p|li)>(?:<p>)?\s*\{([a-z ]{1,20})\}\s*(?:<\/p>)?<\/\1>/g, (block, tag: string, name: string) => {
      if (!isField(name)) return block
      const told = parts(name)
      if (!told) return block
      if (told.length === 0) return ''
      if (told.length === 1 || tag === 'li') return told.map(part => `<${tag}>${part}</${tag}>`).join('')
      return `<ul>${told.map(part => `<li>${part}</li>`).join('')}</ul>`
    })
    .replace(named, (written, name: string) => (isField(name) ? (parts(name)?.join(', ') ?? written) : written))
}

function partsOf(name: NoteField, { title, hook, people, links, chapters, show }: NoteValues): string[] {
  switch (name) {
    case 'title':
      return title ? [escapeText(title)] : []
    case 'hook':
      return hook ? [escapeText(hook)] : []
    case 'guests':
      return people.filter(isGuest).map(guest => linked(guest.name, guest.address))
    case 'links':
      return links.map(link => linked(link.words || link.address, link.address))
    case 'chapters':
      return chapters.map(chapter => `${clock(chapter.fromMs)} ${escapeText(chapter.title)}`)
    case 'show link':
      return [linked(show.name, show.address)]
  }
}

const linked = (words: string, address: string | null): string =>
  address ? `<a href="${escapeUTF8(address)}">${escapeText(words)}</a>` : escapeText(words)
