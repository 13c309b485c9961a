/** Shows a button that copies its `data-text`, and says so. */
export function copyButton(button: HTMLButtonElement): void {
  const words = button.textContent
  button.hidden = false
  button.addEventListener('click', async () => {
    await navigator.clipboard.writeText(button.dataset.text ?? '')
    button.textContent = 'Copied'
    setTimeout(() => {
      button.textContent = words
    }, 2000)
  })
}
