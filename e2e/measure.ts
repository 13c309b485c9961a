import type { Page } from 'playwright-core'

interface Measured {
  /** When the page last changed, by its own clock. */
  changedAt: number
  shifts: string[]
}
declare global {
  interface Window {
    measured: Measured
  }
}

/** Notes, on every page that a window opens from now on, what moves after it was there (Layout Instability API). */
export async function noteShifts(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const measured: Measured = { changedAt: 0, shifts: [] }
    window.measured = measured
    const box = ({ x, y, width, height }: DOMRectReadOnly): string => [x, y, width, height].map(Math.round).join(' ')
    new PerformanceObserver(list => {
      for (const entry of list.getEntries()) {
        const { value, sources } = entry as unknown as {
          value: number
          sources: { node: Node | null; previousRect: DOMRectReadOnly; currentRect: DOMRectReadOnly }[]
        }
        // What is less than a thousandth of the window is a letter that came a little wider.
        if (value < 0.001) continue
        measured.shifts.push(
          ...sources.map(
            ({ node, previousRect, currentRect }) =>
              `${(node as HTMLElement | null)?.className}: ${box(previousRect)} → ${box(currentRect)}`,
          ),
        )
      }
    }).observe({ type: 'layout-shift', buffered: true })
    new MutationObserver(() => {
      measured.changedAt = performance.now()
    }).observe(document, { subtree: true, childList: true, attributes: true })
  })
}

/** Waits until nothing is waited for and nothing has changed for a while. */
export const settled = (page: Page): Promise<unknown> =>
  page.waitForFunction(
    () =>
      document.querySelector('h1') !== null &&
      document.querySelector('[aria-busy="true"]') === null &&
      performance.now() - window.measured.changedAt > 250,
  )

/**
 * What is too small to hit, of all that can be pressed: under so many CSS pixels (WCAG 2.2: 24 by 2.5.8, 44 by 2.5.5). By the same
 * criteria links in sentences are left out, and marks that stand where they do because of what they mark.
 */
export const smallTargets = (page: Page, least: number): Promise<string[]> =>
  page.evaluate(atLeast => {
    /** Whether a link is drawn in a line with other words: its height is that of the line. */
    const isInSentence = (element: HTMLElement): boolean => {
      if (!element.matches('a') || getComputedStyle(element).display !== 'inline') return false
      let block = element.parentElement!
      while (getComputedStyle(block).display === 'inline') block = block.parentElement!
      return block.innerText.trim().length > element.innerText.trim().length
    }
    return [...document.querySelectorAll<HTMLElement>('a[href], button, input, select, textarea, summary, [role=tab]')]
      .filter(element => element.checkVisibility({ visibilityProperty: true }))
      .filter(element => !element.matches(':disabled, .lane-block, .flag, .skip:not(:focus)'))
      .filter(element => !isInSentence(element))
      .flatMap(element => {
        const own = element.getBoundingClientRect()
        // What nobody sees is reached through what stands for it.
        if (own.width <= 1) return []
        const label = (element as HTMLInputElement).labels?.[0]
        const whole = element.closest('.p-select, .p-multiselect, .p-autocomplete, .p-datepicker, .p-inputnumber')
        const boxes = [element, label, whole].flatMap(each => each?.getBoundingClientRect() ?? [])
        const width = Math.max(...boxes.map(box => box.width))
        const height = Math.max(...boxes.map(box => box.height))
        return width > atLeast - 0.5 && height > atLeast - 0.5
          ? []
          : [`${Math.round(width)} by ${Math.round(height)}: ${element.outerHTML.slice(0, 120)}`]
      })
  }, least)
