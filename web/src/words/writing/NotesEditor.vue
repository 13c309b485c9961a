<script setup lang="ts">
import { ArrowDown, ArrowUp, Bold, Code, Heading, Italic, Link as LinkIcon, List, ListOrdered } from '@lucide/vue'
import Placeholder from '@tiptap/extension-placeholder'
import { EditorContent, useEditor } from '@tiptap/vue-3'
import { computed, ref, watch } from 'vue'
import { type Link, mostNotesCharacters } from '@core/episode/fields'
import { fieldsIn, noteFields } from '@core/notes/fill'
import { pastedNotes } from '@core/notes/pasted'
import { notesKit, notesReading, onOneLine } from '@core/notes/schema'
import { notesHtml } from '@core/notes/spelling'
import IconButton from '../../platform/parts/IconButton.vue'
import FieldMenu from './FieldMenu.vue'
import LinkRow from './LinkRow.vue'
import { moveBlock, MovedBlocks } from './movedBlocks'
import { putContent } from './putContent'
import { t } from './messages'

/** Show notes: bold, italic, links and lists, which is what every app can draw. */
const notes = defineModel<string>({ required: true })
const props = defineProps<{
  revision: number
  label?: string
  placeholder?: string
  fault?: string
  /** Where nothing is filled in. */
  withoutFields?: boolean
  /** Where undoing is the page's business, because there is more than the notes to undo. */
  undoneByPage?: boolean
}>()
const linking = ref(false)
/** The notes as they are written down, tags and all. */
const isSource = ref(false)

const editor = useEditor({
  content: onOneLine(notes.value),
  parseOptions: notesReading,
  extensions: [
    notesKit(props.undoneByPage ? { undoRedo: false } : {}),
    MovedBlocks,
    Placeholder.configure({
      placeholder: props.placeholder ?? t('notesPlaceholder'),
    }),
  ],
  editorProps: {
    attributes: { 'aria-label': props.label ?? t('showNotes'), role: 'textbox', 'aria-multiline': 'true', id: 'notes' },
    transformPastedHTML: pastedNotes,
    // Said to be done, it is left to the browser.
    handleDOMEvents: { keydown: (_view, { key }) => key === 'Tab' },
    transformPastedText: words => words.slice(0, mostNotesCharacters),
  },
  onUpdate: ({ editor: changed }) => {
    notes.value = notesHtml(changed.state.doc)
  },
})

watch(
  () => props.revision,
  () => {
    if (editor.value && notesHtml(editor.value.state.doc) !== notes.value) putContent(editor.value, notes.value)
  },
)

const named = computed(() => {
  const names = fieldsIn(notes.value).map(name => `{${name}}`)
  return names.length > 0 ? t('filledInWhenPublished', { fields: names.join(', '), count: names.length }) : ''
})

const tools = computed(() => {
  const chain = () => editor.value!.chain().focus()
  return [
    { name: t('heading'), icon: Heading, mark: 'heading', act: () => chain().toggleHeading({ level: 3 }).run() },
    { name: t('bold'), icon: Bold, mark: 'bold', act: () => chain().toggleBold().run() },
    { name: t('italic'), icon: Italic, mark: 'italic', act: () => chain().toggleItalic().run() },
    { name: t('bulletedList'), icon: List, mark: 'bulletList', act: () => chain().toggleBulletList().run() },
    { name: t('numberedList'), icon: ListOrdered, mark: 'orderedList', act: () => chain().toggleOrderedList().run() },
    { name: t('link'), icon: LinkIcon, mark: 'link', act: () => (linking.value = true) },
  ]
})

const linkAddress = (): string => (editor.value!.getAttributes('link').href as string | undefined) ?? ''

/** Links what is selected; without a selection the address stands for itself. Nothing takes the link away. */
function setLink(href: string): void {
  const chain = editor.value!.chain().focus().extendMarkRange('link')
  if (href === '') chain.unsetLink().run()
  else if (editor.value!.state.selection.empty && !editor.value!.isActive('link'))
    chain
      .insertContent({ type: 'text', text: href.replace(/^mailto:/, ''), marks: [{ type: 'link', attrs: { href } }] })
      .run()
  else chain.setLink({ href }).run()
  linking.value = false
}

/** Puts a link where the writing is, behind its words where none are selected. */
function insertLink({ words, address: href }: Link): void {
  const chain = editor.value!.chain().focus()
  if (!editor.value!.state.selection.empty) chain.setLink({ href }).run()
  else {
    const { $from } = editor.value!.state.selection
    const before = $from.parent.textBetween(Math.max(0, $from.parentOffset - 1), $from.parentOffset)
    chain
      .insertContent([
        ...(/\S/.test(before) ? [{ type: 'text', text: ' ' }] : []),
        { type: 'text', text: words || href, marks: [{ type: 'link', attrs: { href } }] },
        { type: 'text', text: ' ' },
      ])
      .run()
  }
}
function insertField(name: string): void {
  editor.value!.chain().focus().insertContent(`{${name}}`).run()
}
defineExpose({ insertLink })

/** Between the words and their source; what was written in the one is in the other. */
function turnSource(): void {
  isSource.value = !isSource.value
  if (isSource.value) sourceBefore = notes.value
  else if (editor.value && notes.value !== sourceBefore) {
    putContent(editor.value, notes.value)
    notes.value = notesHtml(editor.value.state.doc)
  }
}
let sourceBefore = ''

function leaveLink(): void {
  linking.value = false
  editor.value?.commands.focus()
}
</script>

<template>
  <div class="field">
    <div class="apart items-center gap-3">
      <span class="field-name">{{ label ?? t('notes') }}</span>
      <div v-if="editor" class="flex flex-wrap gap-1" role="toolbar" :aria-label="t('formatting')">
        <template v-if="!isSource">
          <IconButton
            v-for="{ name, icon, mark, act } in tools"
            :key="name"
            :name="name"
            :icon="icon"
            :aria-pressed="editor.isActive(mark)"
            @click="act"
          />
          <IconButton
            name="Move up"
            :icon="ArrowUp"
            :tip="t('moveUp')"
            aria-keyshortcuts="Alt+ArrowUp"
            @click="moveBlock(editor, 'up')"
          />
          <IconButton
            name="Move down"
            :icon="ArrowDown"
            :tip="t('moveDown')"
            aria-keyshortcuts="Alt+ArrowDown"
            @click="moveBlock(editor, 'down')"
          />
          <FieldMenu v-if="!withoutFields" :fields="noteFields" @chosen="insertField" />
        </template>
        <IconButton name="HTML" :icon="Code" :aria-pressed="isSource" @click="turnSource" />
      </div>
    </div>
    <LinkRow v-if="linking" :first="linkAddress()" @set="setLink" @leave="leaveLink" />
    <textarea
      v-if="isSource"
      v-model="notes"
      class="source"
      :aria-label="t('htmlOfNotes')"
      spellcheck="false"
      rows="12"
    />
    <EditorContent v-show="!isSource" class="paper" :editor="editor" />
    <span v-if="fault" class="fault" role="alert">{{ fault }}</span>
    <span v-else-if="named" class="hint">{{ named }}</span>
  </div>
</template>

<style scoped>
.source {
  width: 100%;
  padding: var(--space-3) var(--space-4);
  border: 1px solid var(--edge-strong);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
  font: 400 var(--text-s) / 1.6 monospace;
  overflow-wrap: anywhere;
  resize: vertical;
}
.paper :deep(.tiptap) {
  min-height: 13rem;
  padding: var(--space-3) var(--space-4);
  border: 1px solid var(--edge);
  border-radius: var(--round);
  background: var(--sheet);
  font: 400 1rem/1.6 var(--serif);
  overflow-wrap: anywhere;
}
.paper :deep(.tiptap h3) {
  margin: 0 0 var(--space-2);
  font: 600 var(--text-l) / 1.3 var(--serif);
}
.paper :deep(.tiptap:focus-visible) {
  outline: var(--focus);
  outline-offset: 0;
}
.paper :deep(.tiptap p) {
  margin: 0 0 var(--space-3);
}
.paper :deep(.tiptap li p) {
  margin: 0;
}
.paper :deep(.tiptap p.is-editor-empty:first-child::before) {
  content: attr(data-placeholder);
  float: left;
  height: 0;
  color: var(--ink-soft);
  pointer-events: none;
}
</style>
