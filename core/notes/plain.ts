import { Parser } from 'htmlparser2'

/**
 * Clean notes as plain text: a line for each paragraph and list item, an empty line between blocks,
 * a link's address in brackets behind its words where the words do not show it.
 */
export function plainNotes(html: string): string {
  let text = ''
  let linkFrom = 0
  const hrefs: string[] = []
  const parser = new Parser({
    onopentag(name, attributes) {
      if (name === 'br') text += '\n'
      if (name === 'li') text += '\n– '
      if (name !== 'a') return
      hrefs.push(attributes.href ?? '')
      linkFrom = text.length
    },
    ontext(words) { text += words },
    onclosetag(name) {
      if (name === 'p' || name === 'ul' || name === 'ol') text += '\n\n'
      if (name !== 'a') return
      const href = (hrefs.pop() ?? '').replace(/^mailto:/, '')
      if (href && !text.slice(linkFrom).includes(href)) text += ` (${href})`
    },
  }, { decodeEntities: true })
  parser.end(html)
  return text.replace(/– +\n+/g, '– ').replace(/\n{2,}– /g, '\n– ').replace(/[ \t]+\n/g, '\n').replace(/\n{3,}/g, '\n\n').trim()
}
