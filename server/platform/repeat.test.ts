import { expect, it } from 'vitest'
import { repeat } from './repeat'

it('goes on after a failure, one turn after the other, and ends with the turn that is in hand', async () => {
  const failures: unknown[] = []
  let [turns, atOnce, most] = [0, 0, 0]
  let end = (): void => undefined
  const third = new Promise<boolean>(resolve => {
    const repeated = repeat(
      1,
      async goesOn => {
        turns++
        most = Math.max(most, ++atOnce)
        if (turns === 3) {
          await new Promise<void>(go => (end = go))
          resolve(goesOn())
        }
        atOnce--
        if (turns === 1) throw new Error('once')
      },
      error => failures.push(error),
    )
    void expect
      .poll(() => turns)
      .toBe(3)
      .then(async () => {
        const stopping = repeated.stop()
        end()
        await stopping
      })
  })
  expect(await third).toBe(false)
  expect({ turns, most, failures }).toEqual({ turns: 3, most: 1, failures: [new Error('once')] })
})
