import { copy, sayDone } from './clipboard'

/** Shows a button that copies its `data-text`, and says so by its `data-done`. */
export function copyButton(button: HTMLButtonElement): void {
  button.hidden = false
  button.addEventListener('click', async () => {
    await copy(button.dataset.text ?? '')
    sayDone(button, button.dataset.done ?? '')
  })
}
