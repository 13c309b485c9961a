import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type DemoHouse, demoSounds, openDemoHouse } from './demoHouse'
import { openPart, saved, typeOver } from './hands'

let house: DemoHouse
let page: Page
beforeAll(async () => {
  house = await openDemoHouse()
  page = await house.openWindow()
})
afterAll(() => house?.stop())

it('what a show’s episodes begin with is set once', async () => {
  await page.getByRole('link', { name: 'Defaults for new episodes' }).click()
  await page.getByLabel('Titles').fill('{nummer}. {title}')
  await page.getByText('There is no field {nummer}').waitFor()
  await page.getByLabel('Titles').fill('{number}. {title}')
  await page.getByText('“37. A letter from a chapel” in feed').waitFor()
  // The demo's show has its host; whoever is there cannot be added twice.
  await page.getByRole('list', { name: 'People' }).getByText('Tove Aldermoor').waitFor()
  await page.getByLabel('Name').fill('Tove Aldermoor')
  await page.getByText('Tove Aldermoor is here as Host already.').waitFor()
  await page.getByLabel('Name').fill('')
  await page.locator('#notes').click()
  await page.keyboard.type('{hook}')
  await page.keyboard.press('Enter')
  await page.keyboard.type('With {guests}.')
  await page.keyboard.press('Enter')
  await page.keyboard.type('{links}')
  await page.getByRole('combobox', { name: 'Usual tags' }).fill('Reed organs')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Save' }).click()
  const changes = page.getByRole('dialog', { name: 'What this changes for listeners' })
  await changes
    .getByText(/title changed/)
    .first()
    .waitFor()
  await changes.getByRole('button', { name: 'Save' }).click()
  await page.getByText('Saved.').waitFor()
})

it('from a dropped file to ready: three inputs, under ten presses', async () => {
  let [presses, inputs] = [0, 0]
  const press = async (name: string, role: 'button' | 'link' = 'button'): Promise<void> => {
    presses++
    await page.getByRole(role, { name, exact: true }).click()
  }
  await press('New episode')
  await page.getByText('Drop the audio anywhere').waitFor()
  inputs++
  await page.setInputFiles('input[type=file]', join(demoSounds, 'sf-5.mp3'))
  await expect.poll(() => page.inputValue('#title')).toBe('The last boat, with the lamps lit')
  inputs++
  presses++
  await page.fill('#title', 'The last boat')
  await saved(page)
  await page.getByText('Ready.').waitFor()
  inputs++
  await press('Choose a time')
  await press('Schedule')
  await page.getByTestId('status').getByText('Scheduled.').waitFor()
  console.log(`  ${inputs} inputs, ${presses} presses`)
  expect(inputs).toBeLessThanOrEqual(3)
  expect(presses).toBeLessThan(10)
})

it('in the next sitting the notes come from the template and from links that were prepared, and everything goes out', async () => {
  await page.reload()
  await typeOver(page.getByLabel('Number', { exact: true }), '39')
  await expect.poll(() => page.locator('#notes').innerText()).toContain('With {guests}.')
  await page.getByLabel('Hook').fill('Who lights the lamps when the captain sleeps')
  await page
    .getByLabel('New links')
    .fill('The timetable, https://lake.example/boats\nno address here\nhttps://lake.example/lamps')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByText('No address in: “no address here”').waitFor({ state: 'detached' })
  await page.locator('#notes').click()
  await page.keyboard.press('Control+End')
  await page.keyboard.press('Enter')
  await page.keyboard.type('See')
  await page.getByRole('button', { name: 'The timetable', exact: true }).click()
  await openPart(page, 'People and tags')
  await page.getByLabel('Name', { exact: true }).fill('Odile of the ferry')
  await page.getByLabel('Address', { exact: true }).fill('https://lake.example/odile')
  await page.getByRole('button', { name: 'Add' }).click()
  await page.getByRole('button', { name: 'Reed organs' }).click()
  const tags = page.getByRole('combobox', { name: 'Tags' })
  await tags.fill('lamps, reed organ')
  await tags.press('Enter')
  await openPart(page, 'Extras')
  await page.getByLabel('Discussion', { exact: true }).fill('https://lake.example/talk')
  await page.getByLabel('Place', { exact: true }).fill('On the ferry')
  await saved(page)
  await page.getByRole('button', { name: 'Release now' }).click()
  await page.getByRole('alertdialog').getByRole('button', { name: 'Release now' }).click()
  await page.getByTestId('status').getByText('Released.').waitFor()

  const feed = await (await fetch(`${house.address}/bellows-and-reeds/feed.xml`)).text()
  const item = feed.split('<item>').find(each => each.includes('The last boat'))!
  expect(item).toContain('<title>39. The last boat</title>')
  expect(item).toContain('<itunes:title>The last boat</itunes:title>')
  expect(item).toContain('<itunes:subtitle>Who lights the lamps when the captain sleeps</itunes:subtitle>')
  expect([...item.matchAll(/<category>([^<]*)</g)].map(([, tag]) => tag)).toEqual(['Reed organs', 'lamps'])
  expect(item).toMatch(/<podcast:person role="host" group="cast">Tove Aldermoor</)
  expect(item).toMatch(
    /<podcast:person role="guest" group="cast" href="https:\/\/lake.example\/odile">Odile of the ferry</,
  )
  expect(item).toContain('<comments>https://lake.example/talk</comments>')
  expect(item).toContain('<podcast:location>On the ferry</podcast:location>')
  const told = /<content:encoded>([\s\S]*?)<\/content:encoded>/.exec(item)![1]!
  for (const words of ['Who lights the lamps', 'Odile of the ferry', 'The timetable', 'lake.example/lamps'])
    expect(told).toContain(words)
  expect(told).not.toMatch(/\{\w/)

  const address = await page.getByRole('link', { name: 'Its public page' }).getAttribute('href')
  const reader = await page.context().newPage()
  await reader.goto(address!)
  await reader.getByRole('heading', { name: '39. The last boat' }).waitFor()
  await reader.getByRole('link', { name: 'Odile of the ferry' }).first().waitFor()
  await reader.getByText('Recorded at On the ferry.').waitFor()
})
