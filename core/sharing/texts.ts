/** Where word of an episode is passed on, each with a length of its own. */
export const sharePlaces = ['post', 'forum', 'mail'] as const
export type SharePlace = (typeof sharePlaces)[number]
export type ShareTexts = Readonly<Record<SharePlace, string>>

export const mostTemplateLetters = 2000

/** What a template can name, to be filled in as the episode is. */
export const shareFields = ['title', 'number', 'hook', 'guests', 'show', 'page', 'feed'] as const
export type ShareField = (typeof shareFields)[number]
export type ShareValues = Readonly<Record<ShareField, string>>

/** What is said where a show has no words of its own. */
export const firstShareTexts: ShareTexts = {
  post: '{title}\n{hook}\n{page}',
  forum: 'A new episode of {show} is out: {title}\n\n{hook}\n\nTo hear it, with notes and transcript: {page}',
  mail: '{show}: {title}\n\nHello,\n\na new episode is out. {hook}\n\nHear it here: {page}\nOr in your app, by this address: {feed}\n',
}

const named = /\{([a-z]{1,20})\}/g
const isField = (name: string): name is ShareField => (shareFields as readonly string[]).includes(name)

/** What is wrong with a template; null where nothing is. */
export function shareTextFault(template: string): string | null {
  const unknown = [...template.matchAll(named)].map(([, name]) => name!).find(name => !isField(name))
  return unknown === undefined
    ? null
    : `There is no field {${unknown}}; there are ${shareFields.map(name => `{${name}}`).join(', ')}.`
}

/** A template with its fields filled in; a line that had nothing but fields, and has nothing then, goes. */
export function filledShareText(template: string, values: ShareValues): string {
  return template
    .split('\n')
    .flatMap(line => {
      const filled = line.replace(named, (whole, name: string) => (isField(name) ? values[name] : whole)).trimEnd()
      return filled === '' && line.trim() !== '' ? [] : [filled]
    })
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim()
}

/** A mail to nobody yet: its first line is its subject (RFC 6068). */
export function mailLink(text: string): string {
  const [subject = '', ...lines] = text.split('\n')
  const body = lines.join('\n').trim().replaceAll('\n', '\r\n')
  return `mailto:?subject=${encodeURIComponent(subject)}&body=${encodeURIComponent(body)}`
}
