/** A button; what is read aloud where that is more than what stands on it. */
export function button(words: string, act: () => void, label = words): HTMLButtonElement {
  const made = Object.assign(document.createElement('button'), { type: 'button', textContent: words })
  if (label !== words) {
    made.setAttribute('aria-label', label)
    made.title = label
  }
  made.addEventListener('click', act)
  return made
}

export function row(name: string, ...parts: (Node | null)[]): HTMLDivElement {
  const made = Object.assign(document.createElement('div'), { className: name })
  made.append(...parts.filter(part => part !== null))
  return made
}

/** A message with values in the place of their names. */
export const filled = (message: string, values: Readonly<Record<string, string>>): string =>
  message.replace(/\{(\w+)\}/g, (whole, name: string) => values[name] ?? whole)
