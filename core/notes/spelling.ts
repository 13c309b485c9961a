import type { Mark, Node, TagParseRule } from '@tiptap/pm/model'

const blockTags: Readonly<Record<string, string>> = {
  paragraph: 'p',
  heading: 'h3',
  bulletList: 'ul',
  orderedList: 'ol',
  listItem: 'li',
}
const markTags: Readonly<Record<string, string>> = { bold: 'strong', italic: 'em', link: 'a' }

/** How clean notes are read: the tags that they are written with stand for what they are written of. */
export const notesRules: TagParseRule[] = [
  ...Object.entries(blockTags).map(([node, tag]) => ({ tag, node })),
  { tag: 'br', node: 'hardBreak' },
  { tag: markTags.bold!, mark: 'bold' },
  { tag: markTags.italic!, mark: 'italic' },
  // Without an address it is none.
  {
    tag: markTags.link!,
    mark: 'link',
    getAttrs: element => (element.getAttribute('href') ? { href: element.getAttribute('href') } : false),
  },
]

/** The one way in which notes are written down: a document of `notesSchema` as HTML. Empty paragraphs and headings are left out. */
export function notesHtml(doc: Node): string {
  return doc.children.map(blockHtml).join('')
}

function blockHtml(block: Node): string {
  const tag = blockTags[block.type.name]!
  if (block.isTextblock && block.children.every(({ text }) => text?.trim() === '')) return ''
  return `<${tag}>${block.isTextblock ? inlineHtml(block) : insideHtml(block)}</${tag}>`
}

/** The words of an item stand in it as they are, unless they are several paragraphs. */
function insideHtml(block: Node): string {
  const paragraphs = block.children.filter(child => child.isTextblock)
  const isOne = block.type.name === 'listItem' && paragraphs.length === 1
  return block.children.map(child => (isOne && child.isTextblock ? inlineHtml(child) : blockHtml(child))).join('')
}

function inlineHtml(block: Node): string {
  let html = ''
  let open: readonly Mark[] = []
  const turnTo = (marks: readonly Mark[]): void => {
    const same = marks.findIndex((mark, at) => !open[at]?.eq(mark))
    const kept = same < 0 ? Math.min(marks.length, open.length) : same
    html += open.slice(kept).map(closing).reverse().join('')
    html += marks.slice(kept).map(opening).join('')
    open = marks
  }
  for (const child of block.children) {
    turnTo(child.marks)
    html += child.isText ? escaped(child.text!) : '<br>'
  }
  turnTo([])
  return html
}

const opening = ({ type, attrs }: Mark): string =>
  type.name === 'link'
    ? `<a href="${escaped(String(attrs.href)).replaceAll('"', '&quot;')}">`
    : `<${markTags[type.name]}>`
const closing = ({ type }: Mark): string => `</${markTags[type.name]}>`

const signs: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;' }
const escaped = (words: string): string => words.replace(/[&<>]/g, sign => signs[sign]!)
