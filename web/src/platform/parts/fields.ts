/** What is written or chosen in, first of all. */
const written =
  'input:not([type="file"], [type="hidden"], :disabled), textarea:not(:disabled), [role="combobox"], [role="slider"], [contenteditable="true"]'
const pressed = 'button:not(:disabled), a[href]'

export const isField = (element: Element | null): boolean => !!element?.matches(written)
export const fieldIn = (part: Element | null): HTMLElement | null => part?.querySelector<HTMLElement>(written) ?? null
export const buttonsIn = (part: Element | null): HTMLElement[] => [
  ...(part?.querySelectorAll<HTMLElement>(pressed) ?? []),
]

/**
 * Leads to a field that something elsewhere is about, by the name in its `data-field`, where a part may have several. An
 * editor comes a turn after the part that it is in, so this waits for the frame that draws both.
 */
export function focusField(name: string): void {
  if (!/^\w+$/.test(name)) return
  requestAnimationFrame(() => {
    const part = document.querySelector(`[data-field~="${name}"]`)
    ;(fieldIn(part) ?? buttonsIn(part)[0])?.focus()
  })
}
