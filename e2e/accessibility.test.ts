import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it, onTestFinished } from 'vitest'
import { type DemoHouse, openDemoHouse } from './demoHouse'
import { goTo, openPart } from './hands'
import { violations } from './judge'

let house: DemoHouse
let page: Page
beforeAll(async () => {
  house = await openDemoHouse()
  page = await house.openWindow()
  // Colours that fade into each other are neither those of the day nor of the night.
  await page.emulateMedia({ reducedMotion: 'reduce' })
})
afterAll(() => house?.stop())

const show = '/studio/bellows-and-reeds'
/** Goes to the desk with an episode as it is when it is opened, not as it was left. */
async function openDesk(title: string, query = ''): Promise<void> {
  await goTo(page, show)
  const address = await page.getByRole('link', { name: title }).first().getAttribute('href')
  await page.getByText('Next out').waitFor()
  await goTo(page, address!.split('?')[0] + query)
  await page.locator('#title').waitFor()
}

describe('by day and by night', () => {
  it('the show and its list', async () => {
    await goTo(page, show)
    await page.getByText('Next out').waitFor()
    expect(await violations(page)).toEqual([])
  })
  it.each(['The concertina in the lifeboat', 'A letter from a chapel', 'What the bellows remember'])(
    'the desk with %s',
    async title => {
      await openDesk(title)
      expect(await violations(page)).toEqual([])
    },
  )
  it.each(['', '?look=agenda'])('the calendar %s', async look => {
    await goTo(page, `${show}/calendar${look}`)
    await page.getByRole('button', { name: /A letter from a chapel/ }).waitFor()
    expect(await violations(page)).toEqual([])
  })
  it('mail and calendar', async () => {
    await goTo(page, `${show}/you`)
    await page.getByText('An episode went out').waitFor()
    expect(await violations(page)).toEqual([])
  })
  it.each(['Change its date', 'Remove from the feed'])('%s', async name => {
    await openDesk('What the bellows remember')
    await page.getByRole('button', { name }).click()
    await page.getByRole('button', { name: 'Cancel' }).waitFor()
    expect(await violations(page)).toEqual([])
  })
  it.each([
    ['', 'Change history'],
    ['/facts', 'More feed settings'],
    ['/strands', 'New strand'],
    ['/private', 'Listeners'],
    ['/directories', 'Other directories (tracked by you)'],
    ['/check', 'Check a feed'],
  ])('the feed %s', async (path, words) => {
    if (path === '/private')
      await page.evaluate(async () => {
        const ask = async (how: string, where: string, what?: object) =>
          (await (
            await fetch(`/api/v1${where}`, {
              method: how,
              ...(what && { body: JSON.stringify(what), headers: { 'content-type': 'application/json' } }),
            })
          ).json()) as { id: string }
        const { id } = await ask('GET', '/shows/at/bellows-and-reeds')
        await ask('POST', `/shows/${id}/listeners`, { names: ['Odile', 'Benno'], strandId: null })
      })
    await goTo(page, `${show}/feed${path}`)
    await page.getByText(words, { exact: true }).first().waitFor()
    if (path === '/facts') await page.getByRole('button', { name: 'Name a season' }).click()
    if (path === '/strands') await page.getByRole('button', { name: 'New strand' }).click()
    expect(await violations(page)).toEqual([])
  })
  it('the shelf', async () => {
    await goTo(page, `${show}/shelf`)
    await page.getByRole('row').nth(1).waitFor()
    expect(await violations(page)).toEqual([])
  })
  it('the desk with its recipe open', async () => {
    await openDesk('A letter from a chapel')
    await openPart(page, 'Sound')
    await page.getByRole('button', { name: 'Show the recipe' }).click()
    expect(await violations(page)).toEqual([])
  })
  it.each(['People and tags', 'Extras'])('the desk at %s', async part => {
    await openDesk('A letter from a chapel')
    await openPart(page, part)
    await page.getByText(part === 'Extras' ? /^Web page$/ : 'Separate with commas').waitFor()
    expect(await violations(page)).toEqual([])
  })
  it.each(['Chapters', 'Transcript'])('the desk at %s', async part => {
    await openDesk('What the bellows remember')
    await openPart(page, part)
    await page
      .getByRole('list', { name: part === 'Chapters' ? 'Chapters' : 'Cues' })
      .getByRole('listitem')
      .nth(3)
      .waitFor()
    expect(await violations(page)).toEqual([])
  })
  it('the desk at Soundbites', async () => {
    await openDesk('Wax, or the smell of a good morning')
    await openPart(page, 'Soundbites')
    await page.getByLabel('Title of soundbite 1').focus()
    expect(await violations(page)).toEqual([])
  })
  it.each(['history', 'preview'])('the desk with its %s', async look => {
    await openDesk('A letter from a chapel', `?look=${look}`)
    await page.getByText(look === 'history' ? 'Created' : 'A narrow list').waitFor()
    expect(await violations(page)).toEqual([])
  })
  it('all episodes, some of them chosen', async () => {
    await goTo(page, `${show}/episodes`)
    await page.getByRole('checkbox', { name: 'Choose What the bellows remember' }).click()
    await page.getByText('1 chosen').waitFor()
    expect(await violations(page)).toEqual([])
  })
  it('what episodes begin with', async () => {
    await goTo(page, `${show}/rhythm`)
    await page.getByRole('region', { name: 'The next dates' }).waitFor()
    expect(await violations(page)).toEqual([])
    await goTo(page, `${show}/habits`)
    await page.getByText('Template for the notes').waitFor()
    expect(await violations(page)).toEqual([])
  })
  it.each([
    ['', 'Subscribers, estimated'],
    ['/compare', 'Downloads at the same age'],
    ['/fetches', 'Audio fetched'],
  ])('the numbers %s', async (path, words) => {
    await goTo(page, `${show}/numbers${path}`)
    await page.getByText(words).first().waitFor()
    expect(await violations(page)).toEqual([])
  })
  it('a new show', async () => {
    await goTo(page, '/studio/new-show')
    await page.getByRole('button', { name: 'Create show' }).click()
    await page.getByRole('alert').first().waitFor()
    expect(await violations(page)).toEqual([])
  })
  it.each([
    ['', 'Publish the look'],
    ['/share', 'A player in another page'],
    ['/pages', 'Title of a new page'],
    ['/comments', 'Listeners may write to episodes'],
    ['/host', 'Custom domain'],
  ])('the site %s', async (path, words) => {
    await goTo(page, `${show}/site${path}`)
    await page.getByText(words).first().waitFor()
    expect(await violations(page)).toEqual([])
  })
})

it('the release can be scheduled with the keyboard alone', async () => {
  await goTo(page, show)
  await page.getByRole('link', { name: 'A letter from a chapel' }).first().focus()
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Move the time' }).focus()
  await page.keyboard.press('Enter')
  await page.getByLabel('Time', { exact: true }).focus()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.type('23h30')
  await page.keyboard.press('Enter')
  await page
    .getByTestId('status')
    .getByText(/23:30 \(Europe\/Zurich\)/)
    .waitFor()
})

/** What is open, and where the focus is. */
const focus = () =>
  page.evaluate(() => {
    const element = document.activeElement as HTMLElement
    return {
      isInside: !!element.closest('[data-opened], [role="dialog"], [role="alertdialog"]'),
      words: element === document.body ? 'nowhere' : (element.getAttribute('aria-label') ?? element.innerText).trim(),
    }
  })

// WCAG 2.2, 2.4.3 (focus order) and 2.1.1 (keyboard); the pattern of disclosures and dialogs in the ARIA Authoring Practices Guide.
describe('what opens takes the focus, Escape leaves it, and gives the focus back', () => {
  it.each([
    ['What the bellows remember', 'words', 'Change its date'],
    ['What the bellows remember', 'words', 'Remove from the feed'],
    ['What the bellows remember', 'words', 'Preview'],
    ['What the bellows remember', 'words', 'Identifiers'],
    ['A letter from a chapel', 'words', 'Move the time'],
    ['A letter from a chapel', 'words', 'Release now'],
    ['A letter from a chapel', 'sound', 'Show the recipe'],
    ['What the bellows remember', 'chapters', 'Paste times'],
    ['What the bellows remember', 'transcript', 'Find'],
    ['What the bellows remember', 'transcript', 'Move times'],
    ['What the bellows remember', 'transcript', 'Move cue 2 and all after'],
    ['The concertina in the lifeboat', 'words', 'History'],
  ])('on the desk of %s, in %s: %s', async (title, part, name) => {
    await openDesk(title, `?part=${part}`)
    await leaves(name)
  })
  it.each([
    ['feed/strands', 'New strand'],
    ['feed/private', 'Make the whole show private'],
  ])('at %s: %s', async (path, name) => {
    await goTo(page, `${show}/${path}`)
    await leaves(name)
  })

  /** From the next page on: news comes while the first answer about the sound is on its way. */
  async function haveNewsOvertake(): Promise<void> {
    let ask = (): void => undefined
    let asked: Promise<void>
    const listen = (): void => {
      asked = new Promise(resolve => {
        ask = resolve
      })
    }
    listen()
    page.on('framenavigated', listen)
    await page.route('**/api/v1/events', async route => {
      await asked
      await page.waitForTimeout(200)
      await route.fulfill({ contentType: 'text/event-stream', body: 'event: all\ndata: \n\n' })
    })
    await page.route('**/api/v1/episodes/*/sound', async route => {
      ask()
      await page.waitForTimeout(800)
      await route.continue()
    })
    onTestFinished(async () => {
      page.off('framenavigated', listen)
      await page.unrouteAll({ behavior: 'ignoreErrors' })
    })
  }

  async function leaves(name: string): Promise<void> {
    const opener = page.getByRole('button', { name: new RegExp(`^${name}`) }).first()
    await opener.focus()
    const { words } = await focus()
    await page.keyboard.press('Enter')
    await expect.poll(focus).toMatchObject({ isInside: true })
    await page.keyboard.press('Escape')
    await expect.poll(focus).toEqual({ isInside: false, words })
  }

  it.each(['', ', though news has overtaken the first answer'])(
    'a finding of the feed leads into its field%s',
    async overtaken => {
      await openDesk('What the bellows remember')
      if (overtaken) await haveNewsOvertake()
      for (const [at, part] of [
        ['title', 'words'],
        ['hook', 'words'],
        ['notes', 'words'],
        ['numbers', 'words'],
        ['people', 'people'],
        ['extras', 'extras'],
      ]) {
        const query = `?part=${part}&at=${at}`
        if (overtaken) await page.goto(page.url().split('?')[0] + query)
        else await openDesk('What the bellows remember', query)
        await expect
          .poll(() =>
            page.evaluate(() => document.activeElement?.closest<HTMLElement>('[data-field]')?.dataset.field ?? ''),
          )
          .toContain(at)
      }
    },
  )
})
