import { Parser } from 'htmlparser2'

/**
 * Clean notes as plain text: a line for each paragraph and list item, an empty line between blocks,
 * a link's address in brackets behind its words where the words do not show it.
 */
export function plainNotes(html: string): string {
  let text = ''
  let linkFrom = 0
  const hrefs: string[] = []
  const parser = new Parser(
    {
      onopentag(name, attributes) {
        if (name === 'br') text += '\n'
        if (name === 'li') text += '\n– '
        if (name !== 'a') return
        hrefs.push(attributes.href ?? '')
        linkFrom = text.length
      },
      ontext(words) {
        text += words
      },
      onclosetag(name) {
        if (name === 'p' || name === 'h3' || name === 'ul' || name === 'ol') text += '\n\n'
        if (name !== 'a') return
        const href = (hrefs.pop() ?? '').replace(/^mailto:/, '')
        if (href && !text.slice(linkFrom).includes(href)) text += ` (${href})`
      },
    },
    { decodeEntities: true },
  )
  parser.end(html)
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
