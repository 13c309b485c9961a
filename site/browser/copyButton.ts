import { copy, sayDone } from './clipboard'

/** Shows a button that copies its `data-text`, and says so. */
export function copyButton(button: HTMLButtonElement): void {
  button.hidden = false
  button.addEventListener('click', async () => {
    await copy(button.dataset.text ?? '')
    sayDone(button, 'Copied')
  })
}
