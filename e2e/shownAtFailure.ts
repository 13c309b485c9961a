import { appendFile } from 'node:fs/promises'
import { afterEach } from 'vitest'
import { openWindows } from './demoHouse'

const mostLetters = 4_000

/** Where a journey fails, what each of its windows shows is told, since nobody looks at them; once more at the end of a run. */
afterEach(async ({ task }) => {
  if (task.result?.state !== 'fail') return
  for (const window of await openWindows()) {
    const shown = await window
      .locator('main')
      .first()
      .ariaSnapshot({ timeout: 2_000 })
      .then(all => all.slice(0, mostLetters))
      .catch(() => 'nothing')
    const told = `  at ${window.url()} stands:\n${shown}\n`
    console.log(told)
    if (process.env.SHOWN_AT_FAILURE) await appendFile(process.env.SHOWN_AT_FAILURE, `${task.name}\n${told}`)
  }
})
