<script setup lang="ts">
import Placeholder from '@tiptap/extension-placeholder'
import StarterKit from '@tiptap/starter-kit'
import { EditorContent, useEditor } from '@tiptap/vue-3'
import { computed, nextTick, ref, watch } from 'vue'
import type { Link } from '@core/episode/fields'
import { fieldsIn, noteFields } from '@core/notes/fill'
import FieldMenu from './FieldMenu.vue'
import { putContent } from './putContent'

/** Show notes: bold, italic, links and lists, which is what every app can draw. */
const notes = defineModel<string>({ required: true })
const props = defineProps<{
  revision: number
  label?: string
  placeholder?: string
  fault?: string
  /** Where undoing is the page's business, because there is more than the notes to undo. */
  undoneByPage?: boolean
}>()
const linking = ref(false)
const address = ref('')
const addressFault = ref('')
const addressInput = ref<HTMLInputElement>()

const editor = useEditor({
  content: notes.value,
  extensions: [
    StarterKit.configure({
      heading: false,
      blockquote: false,
      code: false,
      codeBlock: false,
      horizontalRule: false,
      strike: false,
      underline: false,
      ...(props.undoneByPage && { undoRedo: false }),
      link: {
        openOnClick: false,
        defaultProtocol: 'https',
        protocols: ['http', 'https', 'mailto'],
        HTMLAttributes: { target: null, rel: null },
      },
    }),
    Placeholder.configure({
      placeholder: props.placeholder ?? 'What is this episode? The first sentence is the one that lists show.',
    }),
  ],
  editorProps: { attributes: { 'aria-label': 'Show notes', role: 'textbox', 'aria-multiline': 'true', id: 'notes' } },
  onUpdate: ({ editor: changed }) => {
    notes.value = changed.isEmpty ? '' : changed.getHTML()
  },
})

watch(
  () => props.revision,
  () => {
    if (editor.value && editor.value.getHTML() !== notes.value) putContent(editor.value, notes.value)
  },
)

const named = computed(() => {
  const names = fieldsIn(notes.value).map(name => `{${name}}`)
  return names.length > 0 ? `${names.join(', ')} ${names.length === 1 ? 'is' : 'are'}` : ''
})

const tools = computed(() => {
  const chain = () => editor.value!.chain().focus()
  return [
    { name: 'Bold', mark: 'bold', act: () => chain().toggleBold().run() },
    { name: 'Italic', mark: 'italic', act: () => chain().toggleItalic().run() },
    { name: 'List', mark: 'bulletList', act: () => chain().toggleBulletList().run() },
    { name: 'Numbered', mark: 'orderedList', act: () => chain().toggleOrderedList().run() },
    { name: 'Link', mark: 'link', act: startLink },
  ]
})

async function startLink(): Promise<void> {
  address.value = (editor.value!.getAttributes('link').href as string | undefined) ?? ''
  addressFault.value = ''
  linking.value = true
  await nextTick()
  addressInput.value?.focus()
}

function setLink(): void {
  const given = address.value.trim()
  const href = /^[^\s@]+@[^\s@]+$/.test(given)
    ? `mailto:${given}`
    : /^(https?:\/\/|mailto:)/i.test(given) || given === ''
      ? given
      : `https://${given}`
  const chain = editor.value!.chain().focus().extendMarkRange('link')
  if (href === '') chain.unsetLink().run()
  else if (!URL.canParse(href) || /\s/.test(href)) {
    addressFault.value = `“${given}” is no web or e-mail address.`
    return
  } else if (editor.value!.state.selection.empty && !editor.value!.isActive('link')) {
    chain.insertContent({ type: 'text', text: given, marks: [{ type: 'link', attrs: { href } }] }).run()
  } else chain.setLink({ href }).run()
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

function leaveLink(): void {
  linking.value = false
  editor.value?.commands.focus()
}
</script>

<template>
  <div class="field">
    <div class="bar">
      <span class="field-name">{{ label ?? 'Notes' }}</span>
      <div v-if="editor" class="tools" role="toolbar" aria-label="Form of the notes">
        <button
          v-for="tool in tools"
          :key="tool.name"
          type="button"
          :class="['tool', tool.mark]"
          :aria-pressed="editor.isActive(tool.mark)"
          @click="tool.act"
        >
          {{ tool.name }}
        </button>
        <FieldMenu :fields="noteFields" @chosen="insertField" />
      </div>
    </div>
    <form v-if="linking" class="link-row" @submit.prevent="setLink" @keydown.esc="leaveLink">
      <label for="link-address">Address of the link</label>
      <input
        id="link-address"
        ref="addressInput"
        v-model="address"
        type="text"
        inputmode="url"
        placeholder="example.org/page"
      />
      <button type="submit" class="tool">Set</button>
      <button type="button" class="tool" @click="leaveLink">Leave it</button>
      <span v-if="addressFault" class="fault" role="alert">{{ addressFault }}</span>
    </form>
    <EditorContent class="paper" :editor="editor" />
    <span v-if="fault" class="fault" role="alert">{{ fault }}</span>
    <span v-else-if="named" class="hint">{{ named }} filled in wherever the notes go out.</span>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: var(--space-3);
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-1);
}
.field :deep(.tool) {
  min-height: 28px;
  padding: 0 var(--space-2);
  border: 1px solid transparent;
  border-radius: var(--round);
  background: none;
  color: var(--ink-soft);
  font-size: var(--text-s);
  cursor: pointer;
}
.field :deep(.tool:hover) {
  background: var(--accent-wash);
  color: var(--ink);
}
.tool[aria-pressed='true'] {
  background: var(--accent-wash);
  border-color: var(--accent);
  color: var(--ink);
}
.tool.bold {
  font-weight: 700;
}
.tool.italic {
  font-style: italic;
}
.link-row {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2);
  align-items: center;
  padding: var(--space-2) var(--space-3);
  background: var(--accent-wash);
  border-radius: var(--round);
  font-size: var(--text-s);
}
.link-row input {
  flex: 1;
  min-width: 12rem;
  min-height: 32px;
  padding: 0 var(--space-2);
  border: 1px solid var(--edge-strong);
  border-radius: var(--round);
  background: var(--sheet);
  color: var(--ink);
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
