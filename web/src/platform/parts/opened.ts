import { type Directive, nextTick } from 'vue'
import { buttonsIn, fieldIn, isField } from './fields'

interface Opened {
  leave: () => void
  /** What had the focus before, and what it said: a button of the same words may stand in its place afterwards. */
  opener: HTMLElement | null
  words: string
  /** Something was written at length in it. */
  isWritten?: boolean
}
const opened = new WeakMap<HTMLElement, Opened>()

/** What had the focus last; it may be gone by the time that what it opened is there. */
let last: HTMLElement | null = null
document.addEventListener('focusin', ({ target }) => (last = target as HTMLElement))

const wordsOf = (element: Element | null): string => element?.textContent.trim() ?? ''

/** Into the first field; where there are only buttons, to the words that say what they do, so that none is pressed by mistake. */
function enter(element: HTMLElement): void {
  const field = fieldIn(element)
  if (!field) element.tabIndex = -1
  ;(field ?? element).focus()
}

function giveBack(element: HTMLElement, { opener, words }: Opened, home: Element | null): void {
  const { activeElement } = document
  // What fades out has it still.
  if (activeElement && activeElement !== document.body && !element.contains(activeElement)) return
  const again = opener?.isConnected ? opener : buttonsIn(home).find(each => wordsOf(each) === words)
  ;(again ?? buttonsIn(home)[0])?.focus()
}

function onKey(event: KeyboardEvent): void {
  const element = event.currentTarget as HTMLElement
  const target = event.target as HTMLElement
  // What is open inside of it closes first.
  if (event.key !== 'Escape' || target.closest('[data-opened]') !== element) return
  if (element.querySelector('[role="combobox"][aria-expanded="true"]')) return
  // A slip of the finger takes nobody's text: that is left by its button.
  if (opened.get(element)?.isWritten) return
  event.preventDefault()
  event.stopPropagation()
  opened.get(element)?.leave()
}

/**
 * The one way of forms and questions that open in a page: they take the focus, Escape leaves them, and the focus goes back to
 * what had opened them. The value is what leaving does. What comes by itself while somebody writes elsewhere leaves them there,
 * unless it says `always`, as what a key in a field opens does.
 */
export const vOpened: Directive<HTMLElement, () => void> = {
  mounted(element, { value, modifiers }) {
    opened.set(element, { leave: value, opener: last, words: wordsOf(last) })
    element.dataset.opened = ''
    // Before a field's own way with the key.
    element.addEventListener('keydown', onKey, { capture: true })
    element.addEventListener('input', ({ target }) => {
      if (target instanceof HTMLTextAreaElement) opened.get(element)!.isWritten = true
    })
    if (modifiers.always || !isField(document.activeElement)) void nextTick(() => enter(element))
  },
  updated(element, { value }) {
    opened.get(element)!.leave = value
  },
  beforeUnmount(element) {
    const home = element.parentElement
    if (element.contains(document.activeElement)) void nextTick(() => giveBack(element, opened.get(element)!, home))
  },
}
