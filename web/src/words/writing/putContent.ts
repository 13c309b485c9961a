import { createNodeFromContent, type Editor } from '@tiptap/vue-3'
import { Fragment, type Node } from '@tiptap/pm/model'
import { notesReading, onOneLine } from '@core/notes/schema'

/** Puts other content into an editor: only what differs is replaced, so that the place of the writing stays where it can. */
export function putContent(editor: Editor, html: string): void {
  const { doc, tr, schema } = editor.state
  const other = createNodeFromContent(onOneLine(html), schema, { slice: false, parseOptions: notesReading }) as
    Node | Fragment
  const content = other instanceof Fragment ? other : other.content
  const from = doc.content.findDiffStart(content)
  if (from === null) return
  const { a, b } = doc.content.findDiffEnd(content)!
  // Where the same letters repeat, both ends can meet before the beginning.
  const overlap = Math.max(0, from - Math.min(a, b))
  const part = schema.topNodeType.create(null, content).slice(from, b + overlap)
  editor.view.dispatch(tr.replace(from, a + overlap, part).setMeta('preventUpdate', true))
}
