import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from 'playwright-core'

// WCAG 2.2 A and AA, as far as axe-core can tell.
const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/**
 * What sticks out at the right of a narrow window. WCAG 2.2, 1.4.10: no scrolling in two directions at 320 CSS pixels; tables
 * of data, which need their columns, may scroll by themselves.
 */
async function sticksOut(page: Page): Promise<string[]> {
  await page.setViewportSize({ width: 320, height: 800 })
  let found: string[] = []
  // What fits itself into its place, as the look of a page does, takes a moment on a slow machine; what stays is wrong.
  for (let look = 0; look < 4; look++) {
    await page.waitForTimeout(200 + 600 * look)
    found = await page.evaluate(() =>
      [...document.querySelectorAll('body *')]
        .filter(element => element.getBoundingClientRect().right > window.innerWidth + 1)
        .filter(element => !element.closest('table')?.parentElement?.matches('.box'))
        .map(element => `sticks out: ${element.outerHTML.slice(0, 100)}`),
    )
    if (found.length === 0) break
  }
  await page.setViewportSize({ width: 1280, height: 800 })
  return found
}

/** What the page asked for although its own policy forbids it (CSP 3 section 5), where its window was opened by its house. */
const refused = (page: Page): Promise<string[]> =>
  page.evaluate(() => (window as unknown as { refused?: string[] }).refused ?? [])

/** What is wrong by day: everything; by night, where only the colours are others: the colours. */
export async function violations(page: Page): Promise<string[]> {
  await page.waitForTimeout(400)
  await page.evaluate(axe)
  const byDay = await judged(page, { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })
  await page.emulateMedia({ colorScheme: 'dark' })
  let byNight: string[] = []
  // On a slow machine some are still those of the day; what stays is wrong.
  for (let look = 0; look < 4; look++) {
    await page.waitForTimeout(100 + 600 * look)
    byNight = await judged(page, { type: 'rule', values: ['color-contrast', 'link-in-text-block'] })
    if (byNight.length === 0) break
  }
  await page.emulateMedia({ colorScheme: 'light' })
  return [...(await refused(page)), ...byDay, ...byNight.map(found => `by night: ${found}`), ...(await sticksOut(page))]
}

const judged = (page: Page, runOnly: { type: 'tag' | 'rule'; values: string[] }): Promise<string[]> =>
  page.evaluate(async only => {
    const { axe: checker } = window as unknown as {
      axe: { run(options: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }> }
    }
    const { violations: found } = await checker.run({ runOnly: only })
    return found.flatMap(({ id, nodes }) => nodes.map(({ html }) => `${id}: ${html.slice(0, 140)}`))
  }, runOnly)
