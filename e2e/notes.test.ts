import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { cleanNotes } from '@core/notes/clean'
import { evasions } from '@core/notes/evasion.fixture'
import { type DemoHouse, openDemoHouse } from './demoHouse'
import { saved } from './hands'

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
const id = (): string => new URL(page.url()).pathname.split('/').at(-1)!
const kept = (): Promise<string> =>
  page.evaluate(
    async episode =>
      ((await (await fetch(`/api/v1/episodes/${episode}`)).json()) as { text: { notes: string } }).text.notes,
    id(),
  )
const empty = async (): Promise<void> => {
  await notes().focus()
  // A form that closes beside the notes gives the place in them back a moment later: choose all until all is gone.
  await expect
    .poll(async () => {
      await page.keyboard.press('ControlOrMeta+a')
      await page.keyboard.press('Delete')
      return notes().textContent()
    })
    .toBe('')
}
const paste = (html: string, words = ''): Promise<void> =>
  notes().evaluate(
    (editor, given) => {
      const transfer = new DataTransfer()
      if (given.html) transfer.setData('text/html', given.html)
      transfer.setData('text/plain', given.words)
      editor.dispatchEvent(new ClipboardEvent('paste', { clipboardData: transfer, bubbles: true, cancelable: true }))
    },
    { html, words },
  )

it('opening an episode, clicking into it and going through it by Tab changes nothing, in any of them', async () => {
  const window = await house.openWindow()
  const sent: string[] = []
  window.on('request', request => {
    if (/PATCH|PUT/.test(request.method())) sent.push(`${request.method()} ${request.url()} ${request.postData()}`)
  })
  const ids = await window.evaluate(async () => {
    const ask = async (path: string) => (await (await fetch(`/api/v1${path}`)).json()) as never
    const { id: show } = (await ask('/shows/at/bellows-and-reeds')) as { id: string }
    const { episodes } = (await ask(`/shows/${show}/episodes?limit=50`)) as { episodes: { id: string }[] }
    // As a program may have written them: a list without paragraphs.
    const { version } = (await ask(`/episodes/${episodes[0]!.id}`)) as { version: number }
    await fetch(`/api/v1/episodes/${episodes[0]!.id}`, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ version, text: { notes: '<p>With:</p><ul><li>a letter</li><li>a stamp</li></ul>' } }),
    })
    return episodes.map(({ id: episode }) => episode)
  })
  sent.splice(0)
  expect(ids.length).toBeGreaterThanOrEqual(8)
  for (const episode of ids) {
    await window.goto(`${house.address}/studio/bellows-and-reeds/episodes/${episode}`)
    const place = window.locator('#notes')
    await place.click()
    await window.keyboard.press('Control+End')
    await window.keyboard.press('Tab')
    await expect.poll(() => place.evaluate(editor => editor.contains(document.activeElement))).toBe(false)
    await window.locator('#title').focus()
    for (let press = 0; press < 40; press++) await window.keyboard.press('Tab')
    await window.waitForTimeout(700)
  }
  expect(sent).toEqual([])
  await window.context().close()
})

it('what a word processor puts on the clipboard becomes notes, 5 MB of its markup too', async () => {
  await empty()
  await paste(
    `<style>p.MsoNormal{}</style><h1 class=Title>What to try</h1><p class=MsoNormal style="mso-x:y"><span style="font-weight:700">First</span><span> the pallet.<o:p></o:p></span></p><p class=MsoListParagraph style='mso-list:l0 level1'>·&nbsp;&nbsp; Lift it</p><script>alert(1)</script>`,
  )
  await expect
    .poll(() => kept())
    .toBe('<h3>What to try</h3><p><strong>First</strong> the pallet.</p><ul><li>Lift it</li></ul>')
  await empty()
  const foreign = `<p class=MsoNormal style='${'mso-x:y;'.repeat(700)}'><span lang=EN>word</span></p>`
  await paste(foreign.repeat(900))
  await expect.poll(() => notes().locator('p').count()).toBe(900)
  await saved(page)
})

it('an address that is pasted on a selection is its link; bare addresses and emails become links', async () => {
  await empty()
  await page.keyboard.type('the list')
  await page.keyboard.press('ControlOrMeta+a')
  await paste('', 'https://lake.example/list')
  await expect.poll(() => kept()).toBe('<p><a href="https://lake.example/list">the list</a></p>')
  await empty()
  await page.keyboard.type('https://lake.example/candle and reeds@lindenwick.com too')
  await expect
    .poll(() => kept())
    .toBe(
      '<p><a href="https://lake.example/candle">https://lake.example/candle</a> and <a href="mailto:reeds@lindenwick.com">reeds@lindenwick.com</a> too</p>',
    )
  await page.keyboard.press('ControlOrMeta+a')
  await page.getByRole('button', { name: 'Link', exact: true }).click()
  await page.getByLabel('Address of the link').fill('https://lake')
  await page.getByRole('button', { name: 'Apply' }).click()
  await page.getByText('“https://lake” is no web or email address.').waitFor()
  await page.getByRole('button', { name: 'Cancel' }).click()
})

it('blocks are moved, the source can be written, and the feed’s room is counted', async () => {
  await empty()
  await page.keyboard.type('One')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Two')
  await page.keyboard.press('Alt+ArrowUp')
  await expect.poll(() => kept()).toBe('<p>Two</p><p>One</p>')
  await page.getByRole('button', { name: 'Move down' }).click()
  await expect.poll(() => kept()).toBe('<p>One</p><p>Two</p>')
  await page.getByRole('button', { name: 'HTML' }).click()
  await page.getByLabel('HTML of the notes').fill('<h3>Öl</h3><p>Für <b>alle</b>.<script>alert(1)</script></p>')
  await expect.poll(() => kept()).toBe('<h3>Öl</h3><p>Für <strong>alle</strong>.</p>')
  await page.getByRole('button', { name: 'HTML' }).click()
  await expect.poll(() => notes().locator('h3').innerText()).toBe('Öl')
  // “Öl”, an empty line, “Für alle.”, with two letters of two bytes.
  await page.getByTestId('bytes').getByText('15 of 4,000 bytes').waitFor()
})

it('signs that nobody sees and text from right to left stay as they are', async () => {
  await empty()
  const words = 'שלום a\u200db \u200fمرحبا 👩‍🔧'
  await page.keyboard.insertText(words)
  await expect.poll(() => kept()).toBe(`<p>${words}</p>`)
})

it(`of ${evasions.length} ways to get script past a filter none runs in the browser`, async () => {
  expect(evasions.length).toBeGreaterThanOrEqual(120)
  const blank = await page.context().newPage()
  await blank.addInitScript(() => {
    Object.assign(window, { hits: 0, alert: () => void (window as unknown as { hits: number }).hits++ })
  })
  await blank.route('**/*', route =>
    route.request().url() === 'http://blank.example/'
      ? route.fulfill({ body: '', contentType: 'text/html' })
      : route.abort(),
  )
  /** In how many documents something ran, with everything in it moved over, focused and pressed. */
  async function runsOf(all: readonly string[]): Promise<number> {
    let runs = 0
    for (const html of all) {
      await blank.goto('http://blank.example/')
      await blank.evaluate(written => {
        document.open()
        document.write(`<body>${written}`)
        document.close()
      }, html)
      await blank.evaluate(() => {
        for (const element of document.body?.querySelectorAll<HTMLElement>('*') ?? []) {
          for (const event of ['mouseover', 'focus', 'click', 'keydown', 'load', 'error', 'paste'])
            element.dispatchEvent(new Event(event, { bubbles: false, cancelable: true }))
          if (element instanceof HTMLAnchorElement && element.href.startsWith('javascript')) element.click()
        }
      })
      if ((await blank.evaluate(() => (window as unknown as { hits: number }).hits).catch(() => 0)) > 0) runs++
    }
    return runs
  }
  // Uncleaned, many of them do run, or nothing would be proved.
  expect(await runsOf(evasions.slice(0, 60))).toBeGreaterThan(10)
  expect(await runsOf([evasions.map(cleanNotes).join('\n')])).toBe(0)
  await blank.close()
})
