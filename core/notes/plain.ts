import { parseHtml } from '../xml/html'

/**
 * Clean notes as plain text: a line for each paragraph and list item, an empty line between blocks,
 * a link's address in brackets behind its words where the words do not show it.
 */
export function plainNotes(html: string): string {
  let text = ''
  /** What stands in the link that is open. */
  let linked = ''
  const hrefs: string[] = []
  parseHtml(html, {
    onopentag(name, attributes) {
      if (name === 'br') text += '\n'
      if (name === 'li') text += '\n– '
      if (name !== 'a') return
      hrefs.push(attributes.href ?? '')
      linked = ''
    },
    ontext(words) {
      text += words
      linked += words
    },
    onclosetag(name) {
      if (name === 'p' || name === 'h3' || name === 'ul' || name === 'ol') text += '\n\n'
      if (name !== 'a') return
      const href = (hrefs.pop() ?? '').replace(/^mailto:/, '')
      if (href && !linked.includes(href)) text += ` (${href})`
    },
  })
  return tidied(text)
}

/** Line by line, so that it takes as long as the text is long, whatever stands in it. */
function tidied(text: string): string {
  const lines: string[] = []
  for (const line of text.split('\n').map(words => words.trimEnd())) {
    const before = lines.at(-1)
    // What stands in a list item's first paragraph belongs behind its dash, and items stand close.
    if (before === '–' && line !== '–') {
      if (line !== '') lines[lines.length - 1] = `– ${line.trimStart()}`
    } else if (line === '' && before === '') continue
    else {
      if (/^– ?/.test(line)) while (lines.at(-1) === '') lines.pop()
      lines.push(line)
    }
  }
  return lines.join('\n').trim()
}
