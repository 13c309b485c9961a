import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type DemoHouse, openDemoHouse } from './demoHouse'
import { typeOver } from './hands'

let house: DemoHouse
let page: Page
beforeAll(async () => {
  house = await openDemoHouse()
  page = await house.openWindow()
  await page.getByRole('link', { name: 'Episodes', exact: true }).click()
  await page.getByText('8 episodes').waitFor()
})
afterAll(() => house?.stop())

const titles = (on = page): Promise<string[]> => on.locator('.rows tbody a').allInnerTexts()
const choose = async (label: string, option: string, on = page): Promise<void> => {
  await on.getByRole('combobox', { name: label, exact: true }).click()
  await on.getByRole('option', { name: option, exact: true }).click()
}
const check = (title: string, on = page) => on.getByRole('checkbox', { name: `Choose ${title}` }).click()

it('finds by words anywhere, narrows and orders; the state stands in the address', async () => {
  await page.getByRole('searchbox').fill('postage stamp')
  await expect.poll(() => titles()).toEqual(['The harmonium that coughed'])
  await page.getByRole('searchbox').fill('amab')
  await expect.poll(() => titles()).toEqual(['A letter from a chapel'])
  await page.getByRole('searchbox').fill('')
  await choose('Tag', 'reeds')
  await expect.poll(() => titles()).toHaveLength(3)
  await page.getByRole('button', { name: 'Title' }).click()
  await expect
    .poll(() => titles())
    .toEqual(['A drawer full of reeds', 'Tuning by the ferry bell', 'Wax, or the smell of a good morning'])
  await page.reload()
  await expect.poll(() => titles()).toHaveLength(3)
  expect(new URL(page.url()).searchParams.get('order')).toBe('title')
  expect((await titles())[0]).toBe('A drawer full of reeds')
  await page.goto(`${house.address}/studio/bellows-and-reeds/episodes?season=first&tag=zither`)
  await page.getByText('No episodes match these filters.').waitFor()
  await page.getByRole('button', { name: 'Show all episodes' }).click()
  await page.getByText('8 episodes').waitFor()
})

it('many are changed as they were looked at, and taken back with one press', async () => {
  await check('What the bellows remember')
  await check('The accordion under the stage')
  await page.getByText('2 chosen').waitFor()
  await page.getByRole('combobox', { name: 'Which tags' }).fill('Bellows, workshop')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Preview the changes' }).click()
  const panel = page.getByRole('dialog', { name: 'What will change' })
  await panel.getByText('bellows, accordion, workshop').waitFor()
  await panel.getByText('accordion, found instruments, bellows, workshop').waitFor()
  await panel.getByRole('button', { name: 'Change 2 episodes' }).click()
  await page.getByText('2 changed.').waitFor()
  await page.getByText('Released 14 Nov', { exact: false }).or(page.getByText('unpublished changes')).first().waitFor()
  // One of them alone, and then the other.
  await check('What the bellows remember')
  await page.getByRole('button', { name: 'Undo the chosen one' }).click()
  await page.getByText('One is as before.').waitFor()
  await expect.poll(() => page.locator('.rows tbody').innerText()).toContain('workshop')
  await page.getByRole('button', { name: 'Earlier bulk changes' }).click()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect.poll(() => page.locator('.rows tbody').innerText()).not.toContain('workshop')
})

it('what comes in while a number is typed takes nothing away from who types', async () => {
  await check('A letter from a chapel')
  await choose('What to do', 'Renumber')
  const first = page.locator('#act-from')
  await first.focus()
  await first.press('Control+a')
  await first.pressSequentially('10')
  await page.evaluate(async () => {
    const ask = async (path: string, init?: RequestInit) => (await fetch(`/api/v1${path}`, init)).json()
    const { id } = await ask('/shows/at/bellows-and-reeds')
    const { rows } = await ask(`/shows/${id}/episodes/table?find=concertina`)
    const { version } = await ask(`/episodes/${rows[0].id}`)
    const text = { tags: ['came in'] }
    const headers = { 'content-type': 'application/json' }
    await ask(`/episodes/${rows[0].id}`, { method: 'PATCH', headers, body: JSON.stringify({ version, text }) })
  })
  await expect.poll(() => page.locator('.rows tbody').innerText()).toContain('came in')
  await first.pressSequentially('1')
  await page.getByRole('button', { name: 'Preview the changes' }).click()
  await page.getByRole('dialog').getByText('101', { exact: true }).waitFor()
  await page.getByRole('button', { name: 'Cancel' }).click()
  await page.getByRole('button', { name: 'None', exact: true }).click()
})

it('two windows renumber at once: the later one is told, and looks again', async () => {
  const other = await house.openWindow(page.context())
  await other.getByRole('link', { name: 'Episodes', exact: true }).click()
  for (const [window, from] of [
    [page, '101'],
    [other, '201'],
  ] as const) {
    await window.getByRole('checkbox', { name: 'Choose all' }).click()
    await choose('What to do', 'Renumber', window)
    await typeOver(window.locator('#act-from'), from)
    await window.getByRole('button', { name: 'Preview the changes' }).click()
    await window.getByRole('dialog').getByText(from, { exact: true }).waitFor()
  }
  await page.getByRole('button', { name: 'Change 8 episodes' }).click()
  await page.getByText('8 changed.').waitFor()
  await other.getByRole('button', { name: 'Change 8 episodes' }).click()
  await other.getByText('nothing was done', { exact: false }).waitFor()
  // What it shows now is what is true now.
  await other.getByRole('dialog').getByText('101', { exact: true }).waitFor()
  await other.getByRole('button', { name: 'Cancel' }).click()
  // What is said of it comes and goes beside the heading, and moves nothing.
  const top = async (): Promise<number> => (await page.locator('.rows').boundingBox())!.y
  const before = await top()
  await page.getByRole('button', { name: 'Undo all' }).click()
  await page.getByText('8 are as before.').waitFor()
  await page.getByRole('button', { name: 'Earlier bulk changes' }).waitFor({ state: 'detached' })
  expect(await top()).toBe(before)
  await other.close()
})

it('a removed draft is found again and brought back', async () => {
  await page.getByRole('link', { name: 'The concertina in the lifeboat' }).last().click()
  await page.getByRole('button', { name: 'Remove this draft' }).click()
  await page.getByRole('button', { name: 'Remove it' }).click()
  await page.getByRole('link', { name: 'Episodes', exact: true }).click()
  await page.getByText('7 episodes').waitFor()
  await choose('Status', 'Removed drafts')
  await page.getByRole('button', { name: 'Restore it' }).click()
  await page.getByText('No episodes match these filters.').waitFor()
  await page.getByRole('button', { name: 'Show all episodes' }).click()
  await page.getByText('8 episodes').waitFor()
})

it('a list that a change has emptied says so, until something else is asked for', async () => {
  await page.goto(`${house.address}/studio/bellows-and-reeds/episodes?lacks=tags`)
  await check('The concertina in the lifeboat')
  await choose('What to do', 'Add tags')
  await page.getByRole('combobox', { name: 'Which tags' }).fill('concertina, lifeboat')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Preview the changes' }).click()
  await page.getByRole('button', { name: 'Change 1 episode' }).click()
  await page.getByText('All of them have been changed, and none matches any more.').waitFor()
  await page.getByText('None found').waitFor()
  await page.getByRole('searchbox').fill('ferry')
  await page.getByText('No episodes match these filters.').waitFor()
  await page.getByRole('searchbox').fill('')
  await page.getByRole('button', { name: 'Undo all' }).click()
  await page.getByText('One is as before.').waitFor()
  await expect.poll(() => titles()).toEqual(['The concertina in the lifeboat'])
})

it('one tag in two spellings is offered as one', async () => {
  const { id: showId } = await page.evaluate(() =>
    fetch('/api/v1/shows/at/bellows-and-reeds').then(answer => answer.json() as Promise<{ id: string }>),
  )
  await page.evaluate(async id => {
    const made = (await fetch(`/api/v1/shows/${id}/episodes`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ title: 'Spelt another way' }),
    }).then(answer => answer.json())) as { id: string; version: number }
    await fetch(`/api/v1/episodes/${made.id}`, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ version: made.version, text: { tags: ['Réed'] } }),
    })
  }, showId)
  await page.getByText('“reeds” (3) and “Réed” (1) are one tag.').waitFor()
  await page.getByRole('button', { name: 'reeds', exact: true }).click()
  await page.getByRole('button', { name: 'Change 1 episode' }).click()
  await page.getByText('1 changed.').waitFor()
  await page.getByText('are one tag.').waitFor({ state: 'detached' })
})
