import { escapeText, escapeUTF8 } from 'entities'
import { type Handler, Parser } from 'htmlparser2'

/** Elements stand at most so deep in each other; of what is deeper the words are read, and not the tags. */
const deepest = 100

/**
 * Reads HTML in whatever state it is. Each element that is open costs something with each tag that follows; so that the work is as
 * much as the text is long, not many may be.
 */
class ShallowParser extends Parser {
  /** Whether the tag that was read last stands too deep. */
  private isTooDeep = false
  /** Until that is known, what a tag closes by itself is closed. */
  private isOpening = false
  private open = 0

  constructor(handler: Partial<Handler>) {
    const { onopentag, onclosetag, ...others } = handler
    super(
      {
        ...others,
        onopentag: (...tag) => {
          if (this.isTooDeep) return
          this.open++
          onopentag?.(...tag)
        },
        onclosetag: (...tag) => {
          if (this.isTooDeep && !this.isOpening) return
          this.open--
          onclosetag?.(...tag)
        },
      },
      { decodeEntities: true },
    )
  }

  override onopentagname(start: number, end: number): void {
    this.isOpening = true
    super.onopentagname(start, end)
  }
  override onclosetag(start: number, end: number): void {
    this.isTooDeep = false
    super.onclosetag(start, end)
  }
  override ontext(start: number, end: number): void {
    this.isTooDeep = false
    super.ontext(start, end)
  }
  override onend(): void {
    this.isTooDeep = false
    super.onend()
  }
  protected override isVoidElement(name: string): boolean {
    if (this.isOpening) this.isTooDeep = this.open >= deepest
    this.isOpening = false
    return this.isTooDeep || super.isVoidElement(name)
  }
}

/** Reads HTML to its end and tells the handler what it meets. */
export const parseHtml = (html: string, handler: Partial<Handler>): void => new ShallowParser(handler).end(html)

/** The same HTML without the tags that stand too deep, for those that read it with no such bound. */
export function shallowHtml(html: string): string {
  const opened = html.split('<').length - html.split('</').length * 2
  if (opened < deepest) return html
  let written = ''
  parseHtml(html, {
    onopentag: (name, attributes) => {
      const told = Object.entries(attributes).map(([key, value]) => ` ${key}="${escapeUTF8(value)}"`)
      written += `<${name}${told.join('')}>`
    },
    ontext: words => {
      written += escapeText(words)
    },
    onclosetag: name => {
      // HTML Standard section 13.2.6.4.7: it would be one more.
      if (name !== 'br') written += `</${name}>`
    },
  })
  return written
}
