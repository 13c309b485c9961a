import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from 'playwright-core'

// WCAG 2.2 A and AA, as far as axe-core can tell.
const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/** Waits until the page is drawn as it is to stay: what moves or fades has come to its end. */
const still = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    const drawn = (): Promise<unknown> => new Promise(done => requestAnimationFrame(() => setTimeout(done)))
    await drawn()
    for (let moving = true; moving; await drawn()) {
      const ending = document.getAnimations().filter(({ effect }) => effect?.getComputedTiming().endTime !== Infinity)
      moving = ending.some(({ playState }) => playState === 'running')
      await Promise.allSettled(ending.map(({ finished }) => finished))
    }
  })

/**
 * What sticks out at the right of a narrow window. WCAG 2.2, 1.4.10: no scrolling in two directions at 320 CSS pixels; tables
 * of data, which need their columns, may scroll by themselves.
 */
async function sticksOut(page: Page): Promise<string[]> {
  await page.setViewportSize({ width: 320, height: 800 })
  let found: string[] = []
  // What fits itself into its place, as the look of a page does, takes a moment on a slow machine; what stays is wrong.
  for (let look = 0; look < 4; look++) {
    await still(page)
    if (look > 0) await page.waitForTimeout(600 * look)
    found = await page.evaluate(() =>
      [...document.querySelectorAll('body *')]
        .filter(element => element.getBoundingClientRect().right > window.innerWidth + 1)
        .filter(element => !element.closest('table')?.closest('.box, .scrolls'))
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

interface Node {
  role?: { value: string }
  name?: { value: string }
  value?: { value: unknown }
  ignored: boolean
  backendDOMNodeId?: number
}

/** Roles that need a name of their own (WAI-ARIA 1.2, "Accessible Name Required", and groups and landmarks, which stand side by side here). */
const named = new Set(
  `alertdialog button checkbox columnheader combobox dialog grid gridcell group heading img link listbox menu menuitem
  meter option progressbar radio radiogroup region searchbox slider spinbutton switch tab table tablist tabpanel textbox`.split(
    /\s+/,
  ),
)

/**
 * What somebody with a screen reader would miss, by the browser's own accessibility tree: parts without a name, fields that are
 * called by what stands in them, landmarks that are told apart by nothing, a page without its one heading.
 */
async function unnamed(page: Page): Promise<string[]> {
  const line = await page.context().newCDPSession(page)
  const { nodes } = (await line.send('Accessibility.getFullAXTree')) as { nodes: Node[] }
  const seen = nodes.filter(({ ignored }) => !ignored)
  const nameOf = ({ name }: Node): string => String(name?.value ?? '').trim()
  const found: string[] = []
  const htmlOf = async ({ backendDOMNodeId }: Node): Promise<string> => {
    const { outerHTML } = await line.send('DOM.getOuterHTML', { backendNodeId: backendDOMNodeId! })
    return outerHTML.slice(0, 160)
  }
  for (const node of seen) {
    const role = node.role?.value ?? ''
    if (!named.has(role)) continue
    if (!nameOf(node)) {
      const html = await htmlOf(node)
      // What folds is named by its summary.
      if (!html.startsWith('<details')) found.push(`${role} without a name: ${html}`)
    } else if (role === 'combobox' && nameOf(node) === String(node.value?.value ?? '')) {
      const html = await htmlOf(node)
      // What says what it is for while nothing is chosen is no value.
      if (!html.includes('placeholder')) found.push(`called by its value: ${html}`)
    }
  }
  for (const role of ['main', 'navigation', 'banner', 'contentinfo', 'complementary', 'region', 'search']) {
    const names = seen.filter(node => node.role?.value === role).map(nameOf)
    if (new Set(names).size < names.length) found.push(`two landmarks alike: ${role} ${names.join(', ')}`)
  }
  await line.detach()
  const counts = await page.evaluate(() => {
    const isSeen = (element: Element): boolean => element.checkVisibility({ visibilityProperty: true })
    const broken = [...document.querySelectorAll('[aria-labelledby], [aria-describedby]')]
      .filter(isSeen)
      .flatMap(element =>
        ['aria-labelledby', 'aria-describedby']
          .flatMap(name => element.getAttribute(name)?.split(/\s+/) ?? [])
          .filter(id => id && !document.getElementById(id))
          .map(id => `named by #${id}, which is not there: ${element.outerHTML.slice(0, 160)}`),
      )
    const count = (selector: string): number => [...document.querySelectorAll(selector)].filter(isSeen).length
    return { broken, main: count('main'), h1: count('h1') }
  })
  if (counts.main !== 1) found.push(`${counts.main} main parts`)
  if (counts.h1 !== 1) found.push(`${counts.h1} headings of the page`)
  return [...found, ...counts.broken]
}

/**
 * States that are gone where the system chooses all colours (CSS Color Adjust 1, forced colours): each chosen, pressed, current
 * or checked part has to differ from one beside it that is not, in what is left then.
 */
async function lostStates(page: Page): Promise<string[]> {
  await page.emulateMedia({ forcedColors: 'active' })
  await still(page)
  const lost = await page.evaluate(() => {
    const kept = [
      'backgroundColor',
      'color',
      'borderTopWidth',
      'borderBottomWidth',
      'borderBottomStyle',
      'borderBottomColor',
      'borderLeftWidth',
      'borderLeftColor',
      'outlineStyle',
      'outlineWidth',
      'textDecorationLine',
      'fontWeight',
    ] as const
    const looks = (element: Element): string =>
      [element, ...element.querySelectorAll('*')]
        .flatMap(each => [null, '::before', '::after'].map(part => [getComputedStyle(each, part), part] as const))
        .map(([style, part]) => (part && style.content === 'none' ? '' : kept.map(name => style[name]).join(' ')))
        .join('|')
    const words = (element: Element): string => (element as HTMLElement).innerText ?? ''
    return ['aria-selected', 'aria-pressed', 'aria-current', 'aria-checked'].flatMap(state =>
      [...document.querySelectorAll(`[${state}]:not([${state}=false])`)]
        .filter(element => element.checkVisibility({ visibilityProperty: true }))
        .flatMap(element => {
          const role = element.getAttribute('role') ?? element.tagName
          const beside = [...(element.parentElement?.parentElement?.querySelectorAll('*') ?? [])].filter(
            other =>
              (other.getAttribute('role') ?? other.tagName) === role &&
              other.className.toString().split(' ')[0] === element.className.toString().split(' ')[0] &&
              [null, 'false'].includes(other.getAttribute(state)) &&
              other.children.length === element.children.length &&
              !other.matches(':disabled'),
          )
          const isLost = beside.length > 0 && beside.every(other => looks(other) === looks(element))
          return isLost
            ? [`${state} is lost under forced colours: ${words(element)} ${element.outerHTML.slice(0, 120)}`]
            : []
        }),
    )
  })
  await page.emulateMedia({ forcedColors: 'none' })
  return lost
}

/** What is wrong by day: everything; by night, where only the colours are others: the colours. */
export async function violations(page: Page): Promise<string[]> {
  await still(page)
  await page.evaluate(axe)
  const byDay = await judged(page, { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })
  await page.emulateMedia({ colorScheme: 'dark' })
  let byNight: string[] = []
  // On a slow machine some are still those of the day; what stays is wrong.
  for (let look = 0; look < 4; look++) {
    await still(page)
    if (look > 0) await page.waitForTimeout(600 * look)
    byNight = await judged(page, { type: 'rule', values: ['color-contrast', 'link-in-text-block'] })
    if (byNight.length === 0) break
  }
  await page.emulateMedia({ colorScheme: 'light' })
  return [
    ...(await refused(page)),
    ...byDay,
    ...byNight.map(found => `by night: ${found}`),
    ...(await unnamed(page)),
    ...(await lostStates(page)),
    ...(await sticksOut(page)),
  ]
}

const judged = (page: Page, runOnly: { type: 'tag' | 'rule'; values: string[] }): Promise<string[]> =>
  page.evaluate(async only => {
    const { axe: checker } = window as unknown as {
      axe: { run(options: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }> }
    }
    const { violations: found } = await checker.run({ runOnly: only })
    return found.flatMap(({ id, nodes }) => nodes.map(({ html }) => `${id}: ${html.slice(0, 140)}`))
  }, runOnly)
