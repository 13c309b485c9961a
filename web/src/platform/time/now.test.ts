import { afterEach, expect, it } from 'vitest'
import { effectScope } from 'vue'
import { currentMoment, setAhead, useNow } from './now'

afterEach(() => setAhead(0))

it('where time is moved on, everybody who looks at the clock sees it at once, however seldom they look', () => {
  const scope = effectScope()
  const now = scope.run(() => useNow(3600_000))!
  const before = +now.value
  setAhead(5 * 3600_000)
  expect(+now.value - before).toBeGreaterThanOrEqual(5 * 3600_000)
  expect(+currentMoment() - before).toBeGreaterThanOrEqual(5 * 3600_000)
  scope.stop()
  const last = +now.value
  setAhead(9 * 3600_000)
  expect(+now.value).toBe(last)
})
