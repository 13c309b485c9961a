/** Copies words; where the browser lets no page do so (over plain HTTP), by a field that is selected. */
export async function copy(words: string): Promise<void> {
  if (navigator.clipboard) return navigator.clipboard.writeText(words)
  const field = Object.assign(document.createElement('textarea'), { value: words })
  document.body.append(field)
  field.select()
  document.execCommand('copy')
  field.remove()
}

/** Lets a button say for two seconds that it has done what it is for. */
export function sayDone(button: HTMLButtonElement, words: string): void {
  const before = button.textContent
  button.textContent = words
  button.disabled = true
  setTimeout(() => {
    button.textContent = before
    button.disabled = false
  }, 2000)
}
