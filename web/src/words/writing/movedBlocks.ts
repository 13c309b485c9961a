import { TextSelection } from '@tiptap/pm/state'
import { type Editor, Extension } from '@tiptap/vue-3'

/** Moves the paragraph, heading or list that is being written in up or down past the next one; nothing where there is none. */
export function moveBlock({ state, view }: Pick<Editor, 'state' | 'view'>, way: 'up' | 'down'): boolean {
  const { doc, selection, tr } = state
  const index = selection.$from.index(0)
  const other = way === 'up' ? index - 1 : index + 1
  if (other < 0 || other >= doc.childCount) return true
  const from = selection.$from.before(1)
  const block = doc.child(index)
  const past = doc.child(other).nodeSize
  const to = way === 'up' ? from - past : from + past
  tr.delete(from, from + block.nodeSize).insert(to, block)
  tr.setSelection(TextSelection.near(tr.doc.resolve(to + (selection.from - from))))
  view.dispatch(tr.scrollIntoView())
  return true
}

/**
 * Alt and an arrow move a block; Control and a bracket move an item of a list a level in or out. Tab is left to the page, so that
 * whoever goes by it changes nothing on the way (WCAG 2.2, 2.1.2).
 */
export const MovedBlocks = Extension.create({
  name: 'movedBlocks',
  addKeyboardShortcuts() {
    return {
      'Alt-ArrowUp': ({ editor }) => moveBlock(editor, 'up'),
      'Alt-ArrowDown': ({ editor }) => moveBlock(editor, 'down'),
      'Mod-]': ({ editor }) => editor.commands.sinkListItem('listItem'),
      'Mod-[': ({ editor }) => editor.commands.liftListItem('listItem'),
    }
  },
})
