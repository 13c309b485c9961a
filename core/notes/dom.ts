import { DomHandler, Element } from 'domhandler'
import { DomUtils, Parser } from 'htmlparser2'

/** As much of an element of the DOM Standard as rules of a schema look at, which tell elements by their tags. */
class NotesElement extends Element {
  get nodeName(): string {
    return this.name.toUpperCase()
  }
  getAttribute(name: string): string | null {
    return this.attribs[name] ?? null
  }
  matches(tag: string): boolean {
    return this.name === tag
  }
  /** Where a list stands in a list, it is put into the item before it. */
  appendChild(child: Element): void {
    DomUtils.removeElement(child)
    DomUtils.appendChild(this, child)
  }
}

class NotesHandler extends DomHandler {
  override onopentag(name: string, attributes: Record<string, string>): void {
    const element = new NotesElement(name, attributes)
    this.addNode(element)
    this.tagStack.push(element)
  }
}

/** Clean notes as a tree, for whoever reads a document object model: a whole one takes ten times as long. */
export function notesDom(html: string): Node {
  const handler = new NotesHandler()
  new Parser(handler, { decodeEntities: true }).end(`<body>${html}</body>`)
  return handler.root.firstChild as unknown as Node
}
