import { join } from 'node:path'
import { chromium } from 'playwright-core'
import sharp from 'sharp'
import { needPrograms } from './setup/debian.mjs'
import { Halt, main } from './setup/halt.mjs'
import { root } from './setup/place.mjs'

const address = process.env.DEMO_URL ?? 'http://127.0.0.1:4310'
const studio = `${address}/studio/bellows-and-reeds`
const site = `${address}/bellows-and-reeds`
const underway = new WeakMap()

/** Draws the pictures in docs/screenshots anew, from a demo that has just been filled and runs (`npm run demo -- --fresh`). */
await main(async () => {
  needPrograms(['chromium-headless-shell'])
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking'],
  })
  try {
    const page = await windowOf(browser, 'light')
    const open = async path => {
      await page.goto(`${studio}/${path}`)
      await settled(page)
    }
    await open('')
    await shot(page, 'show')
    const { id: chapel } = await episodeNamed(page, 'A letter from a chapel')
    const { id: bellows } = await episodeNamed(page, 'What the bellows remember')
    await open(`episodes/${chapel}?part=words`)
    await shot(page, 'desk')
    for (const part of ['chapters', 'transcript']) {
      await open(`episodes/${bellows}?part=${part}`)
      await shot(page, `desk-${part}`)
    }
    await open(`episodes/${bellows}?part=words&look=preview`)
    await shot(page, 'preview')
    for (const [path, name] of [
      ['episodes', 'all-episodes'],
      ['calendar', 'calendar'],
      ['rhythm', 'rhythm'],
      ['shelf', 'shelf'],
      ['feed/directories', 'directories'],
      ['site', 'site-look'],
      ['numbers?period=90', 'numbers'],
    ]) {
      await open(path)
      await shot(page, name)
    }
    await sendChange(page, bellows)
    await open('feed')
    await page.getByRole('button', { name: 'Compare' }).first().click()
    await settled(page)
    await shot(page, 'feed')
    await change(page, bellows, { title: 'What the bellows remember, and what they forget' })
    const night = await windowOf(browser, 'dark')
    await night.goto(`${studio}/episodes/${bellows}?part=soundbites`)
    await settled(night)
    await shot(night, 'desk-night')
    await drawSite(page)
  } finally {
    await browser.close()
  }
})

/** The public pages, in the studio's own browser, which may look at what is only tried. */
async function drawSite(page) {
  const { id } = await showNow(page)
  await page.goto(`${studio}/site/share`)
  await page.getByRole('heading', { name: 'A player in another page' }).scrollIntoViewIfNeeded()
  await settled(page)
  await shot(page, 'site-embed')

  await page.goto(`${site}/a-drawer-full-of-reeds`)
  await page.locator('summary', { hasText: 'Transcript' }).click()
  await page.locator('.said a').nth(4).click()
  await page.locator('.said [aria-current]').waitFor()
  await page.getByRole('button', { name: 'Pause' }).click()
  await page.locator('summary').scrollIntoViewIfNeeded()
  await page.mouse.wheel(0, 300)
  await page.waitForTimeout(300)
  await shot(page, 'page-transcript')
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(site)
  await shot(page, 'site-phone')
  await page.setViewportSize({ width: 1280, height: 800 })

  const tried = []
  for (const layout of ['shore', 'letter', 'quay', 'horizon']) {
    const { version, tried: theme } = await ask(page, 'GET', `/shows/${id}/theme`)
    await ask(page, 'PUT', `/shows/${id}/theme`, { version, theme: { ...theme, layout } })
    await page.goto(`${address}/api/v1/shows/${id}/theme/page?path=`)
    tried.push(await page.screenshot())
  }
  const { version } = await ask(page, 'GET', `/shows/${id}/theme`)
  await ask(page, 'POST', `/shows/${id}/theme/leave`, { version })
  await sheet(tried, 'site-layouts')

  const spoken = []
  for (const [language, path] of [
    ['de', ''],
    ['fr', '/listen'],
    ['ar', '/what-the-bellows-remember'],
    ['he', '/listen'],
  ]) {
    await ask(page, 'PATCH', `/shows/${id}`, { version: (await showNow(page)).version, language })
    await page.goto(site + path)
    spoken.push(await page.screenshot())
  }
  await ask(page, 'PATCH', `/shows/${id}`, { version: (await showNow(page)).version, language: 'en-gb' })
  await sheet(spoken, 'site-languages')
}

/** Four pictures as one, side by side and below each other. */
async function sheet(pictures, name) {
  const [width, height, gap] = [800, 500, 12]
  const parts = await Promise.all(
    pictures.map(async (picture, at) => ({
      input: await sharp(picture).resize(width, height).png().toBuffer(),
      left: (at % 2) * (width + gap),
      top: Math.floor(at / 2) * (height + gap),
    })),
  )
  await sharp({ create: { width: 2 * width + gap, height: 2 * height + gap, channels: 3, background: '#fff' } })
    .composite(parts)
    .png()
    .toFile(join(root, 'docs/screenshots', `${name}.png`))
}

function showNow(page) {
  return ask(page, 'GET', '/shows/at/bellows-and-reeds')
}

async function windowOf(browser, colorScheme) {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Zurich',
    colorScheme,
    reducedMotion: 'reduce',
  })
  const page = await context.newPage()
  follow(page)
  await page.goto(`${address}/studio/`).catch(() => {
    throw new Halt(`No demo answers at ${address}; start one with npm run demo -- --fresh.`)
  })
  await page.fill('#email', 'demo@lakeletter.example')
  await page.fill('#password', 'lake-letter-demo')
  await page.click('button[type=submit]')
  await page.getByRole('button', { name: 'New episode' }).waitFor()
  return page
}

/** What a page is asking for; the stream of news stays open. */
function follow(page) {
  const asked = new Set()
  underway.set(page, asked)
  page.on('request', request => {
    if (!request.url().endsWith('/events')) asked.add(request)
  })
  for (const end of ['requestfinished', 'requestfailed']) page.on(end, request => asked.delete(request))
}

/** Nothing has been asked for a second, in which waveforms are drawn of what has come. */
async function settled(page) {
  for (let quietMs = 0; quietMs < 1_000; quietMs += 100) {
    await page.waitForTimeout(100)
    if (underway.get(page).size > 0) quietMs = 0
  }
}

function shot(page, name) {
  return page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) })
}

function ask(page, method, path, body) {
  return page.evaluate(
    async ([how, where, what]) => {
      const answer = await fetch(`/api/v1${where}`, {
        method: how,
        headers: what ? { 'content-type': 'application/json' } : {},
        body: what && JSON.stringify(what),
      })
      if (!answer.ok) throw new Error(`${how} ${where}: ${await answer.text()}`)
      return answer.json()
    },
    [method, path, body],
  )
}

async function episodeNamed(page, title) {
  const { id } = await showNow(page)
  const { episodes } = await ask(page, 'GET', `/shows/${id}/episodes?find=${encodeURIComponent(title)}`)
  return episodes[0]
}

async function change(page, id, text) {
  const { version } = await ask(page, 'GET', `/episodes/${id}`)
  return ask(page, 'PATCH', `/episodes/${id}`, { version, text })
}

async function sendChange(page, id) {
  const { version } = await change(page, id, { hook: 'Who can read the folds knows how it was played, and by whom.' })
  await ask(page, 'POST', `/episodes/${id}/send-changes`, { version })
}
