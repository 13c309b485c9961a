import { readFileSync } from 'node:fs'
import { expect } from 'vitest'
import type { Locator, Page } from 'playwright-core'

/** Drops files on a window, as a hand would: they are over it first. `hover` is what the window says meanwhile. */
export async function dropFiles(
  window: Page,
  files: readonly { name: string; path: string }[],
  hover: string,
): Promise<void> {
  const transfer = await window.evaluateHandle(
    given => {
      const dropped = new DataTransfer()
      for (const { name, bytes } of given)
        dropped.items.add(
          new File([Uint8Array.from(atob(bytes), letter => letter.charCodeAt(0))], name, { type: 'audio/mpeg' }),
        )
      return dropped
    },
    files.map(({ name, path }) => ({ name, bytes: readFileSync(path).toString('base64') })),
  )
  await window.dispatchEvent('body', 'dragenter', { dataTransfer: transfer })
  await window.getByText(hover).waitFor()
  await window.dispatchEvent('body', 'drop', { dataTransfer: transfer })
}

/**
 * Types over what stands in a field, key by key, and then leaves it, as hands do: where a list that closes takes the focus
 * back meanwhile, and with it what was chosen, once more.
 */
export async function typeOver(field: Locator, text: string): Promise<void> {
  const type = async (): Promise<string> => {
    await field.focus()
    await field.press('Control+a')
    await field.pressSequentially(text)
    return field.inputValue()
  }
  await expect.poll(type).toBe(text)
  await field.press('Tab')
}

/** Opens a part of the desk by its name. */
export const openPart = (window: Page, name: string): Promise<void> =>
  window.getByRole('tab', { name: new RegExp(`^${name}\\b`) }).click()

/** Waits until the desk says that all is kept. */
export const saved = (window: Page): Promise<void> =>
  window
    .getByTestId('saving')
    .getByText(/^Saved /)
    .waitFor()

/** Goes to another page of the studio as its links do: without loading it all anew. */
export const goTo = (window: Page, path: string): Promise<void> =>
  window.evaluate(to => {
    history.pushState(null, '', to)
    dispatchEvent(new PopStateEvent('popstate', { state: null }))
  }, path)
