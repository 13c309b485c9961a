import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type DemoHouse, openDemoHouse } from './demoHouse'
import { openPart, saved } from './hands'

let house: DemoHouse
let page: Page
beforeAll(async () => {
  house = await openDemoHouse()
  page = await house.openWindow()
  await page.getByRole('button', { name: 'New episode' }).click()
  await page.getByText('Drop the audio anywhere').waitFor()
})
afterAll(() => house?.stop())

const notes = () => page.locator('#notes')
const undo = 'ControlOrMeta+z'
const redo = 'ControlOrMeta+Shift+z'

it('undo and redo go over the whole desk, and show where', async () => {
  await page.fill('#title', 'The reed that buzzes')
  await notes().click()
  await page.keyboard.type('A reed that buzzes is mostly dirty.')
  await openPart(page, 'People and tags')
  const tag = page.getByRole('combobox', { name: 'Tags' })
  await tag.fill('reeds')
  await tag.press('Enter')
  await page.getByRole('button', { name: 'Remove reeds' }).waitFor()

  await page.keyboard.press(undo)
  await page.getByRole('button', { name: 'Remove reeds' }).waitFor({ state: 'detached' })
  await page.keyboard.press(undo)
  await page.getByRole('tab', { name: /^Words/, selected: true }).waitFor()
  await expect.poll(() => notes().innerText()).not.toContain('dirty')
  await page.keyboard.press(redo)
  await expect.poll(() => notes().innerText()).toContain('mostly dirty.')
  await page.getByRole('button', { name: 'Redo' }).click()
  await page.getByRole('button', { name: 'Remove reeds' }).waitFor()
  await expect.poll(() => page.inputValue('#title')).toBe('The reed that buzzes')
  await saved(page)
  // What is being typed but was not taken over yet has an undo of its own.
  await tag.pressSequentially('bello')
  await page.keyboard.press(undo)
  await page.getByRole('button', { name: 'Remove reeds' }).waitFor()
  await tag.fill('')
})

it('an earlier state is found, compared word by word, and brought back', async () => {
  await openPart(page, 'Words')
  await notes().fill('Nothing of it is left but this, and it is longer than a line so that nobody could miss it.')
  await saved(page)
  await notes().fill('Gone.')
  await saved(page)
  await page.getByRole('button', { name: 'History' }).click()
  const panel = page.getByRole('dialog', { name: 'History' })
  await panel.getByText('you', { exact: true }).first().waitFor()
  await panel.locator('del', { hasText: 'Nothing of it' }).first().waitFor()
  await panel.getByRole('button', { name: 'Restore this' }).click()
  await panel.getByText('Nothing has changed since then.').waitFor()
  await page.keyboard.press('Escape')
  await expect.poll(() => notes().innerText()).toContain('Nothing of it is left')
  await saved(page)
  await page.reload()
  await expect.poll(() => notes().innerText()).toContain('Nothing of it is left')
  await expect.poll(() => page.getByRole('button', { name: 'Undo' }).isDisabled()).toBe(true)
})

it('a session that runs out in mid-sentence: signed in again over the desk, nothing is lost', async () => {
  await notes().click()
  await page.keyboard.press('ControlOrMeta+End')
  // The session ends while keys are pressed: whoever writes is asked when they pause, whatever else is on its way.
  await page.keyboard.type(' And one', { delay: 80 })
  await Promise.all([
    page.context().clearCookies(),
    page.keyboard.type(' sentence more, which takes its time', { delay: 80 }),
  ])
  const again = page.getByRole('dialog', { name: 'Sign in again' })
  await again.waitFor()
  await expect.poll(() => again.getByLabel('Email').inputValue()).toBe('demo@lakeletter.example')
  await again.locator('#password').fill('not the one')
  await again.getByRole('button', { name: 'Sign in' }).click()
  await again.getByRole('alert').waitFor()
  await again.locator('#password').fill('lake-letter-demo')
  await again.getByRole('button', { name: 'Sign in' }).click()
  await again.waitFor({ state: 'detached' })
  await saved(page)
  await page.reload()
  await expect.poll(() => notes().innerText()).toContain('And one sentence more, which takes its time')
})

it('a draft gets its audio from the shelf', async () => {
  await page.getByRole('button', { name: 'Choose from the shelf' }).click()
  const shelf = page.getByRole('dialog', { name: 'From the shelf' })
  await shelf
    .getByRole('listitem')
    .filter({ hasText: 'br-36.mp3' })
    .getByRole('button', { name: 'Use this file' })
    .click()
  await page.getByRole('button', { name: 'Play' }).waitFor()
  await page.getByText('Audio is here').waitFor()
})

it('what goes out is seen before, and follows what is written', async () => {
  await page.getByRole('button', { name: 'Preview' }).click()
  const panel = page.getByRole('complementary', { name: 'Preview' })
  await page.fill('#title', 'A title that is so long that a narrow list has to cut it')
  await panel.getByText('A title that is so long that a narrow l…').waitFor()
  await panel.getByRole('tab', { name: 'Feed' }).click()
  await panel
    .getByText('<itunes:title>A title that is so long that a narrow list has to cut it</itunes:title>')
    .waitFor()
  await panel.getByRole('tab', { name: 'File' }).click()
  await panel.getByRole('row').filter({ hasText: 'TALB' }).getByText('from the show').waitFor()
  await panel.getByRole('tab', { name: 'Page' }).click()
  await panel
    .frameLocator('iframe')
    .getByRole('heading', { name: 'A title that is so long that a narrow list has to cut it' })
    .waitFor()
  await panel.getByRole('button', { name: 'Close' }).click()
  await panel.waitFor({ state: 'detached' })
})
