import { afterEach } from 'vitest'
import { openWindows } from './demoHouse'

const mostLetters = 4_000

/** Where a journey fails, what each of its windows shows is told, since nobody looks at them. */
afterEach(async ({ task }) => {
  if (task.result?.state !== 'fail') return
  for (const window of await openWindows())
    console.log(
      `  at ${window.url()} stands:\n${await window
        .locator('main')
        .first()
        .ariaSnapshot({ timeout: 2_000 })
        .then(shown => shown.slice(0, mostLetters))
        .catch(() => 'nothing')}`,
    )
})
