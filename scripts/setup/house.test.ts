import { expect, it } from 'vitest'
// @ts-expect-error a script without types
import { Parts } from './house.mjs'

/** A part that falls when told, and counts how often it was started. */
function part() {
  let fall: () => void = () => undefined
  const made = {
    starts: 0,
    process: {
      once: (_event: string, act: () => void) => {
        fall = act
      },
    },
    stop: async () => undefined,
  }
  return { made, fall: () => fall() }
}

it('a stand-in that falls is started again and pulls nothing down; a server that falls does', async () => {
  const parts = new Parts()
  const server = part()
  const standIns: ReturnType<typeof part>[] = []
  parts.add(server.made)
  parts.addStandIn(() => {
    const next = part()
    standIns.push(next)
    return next.made
  }, 0)
  const kept = parts.keepRunning()
  standIns[0]!.fall()
  await expect.poll(() => standIns.length).toBe(2)
  standIns[1]!.fall()
  await expect.poll(() => standIns.length).toBe(3)
  server.fall()
  await expect(kept).rejects.toThrow('ended by itself')
  await parts.stop()
  standIns[2]!.fall()
  await new Promise(resolve => setTimeout(resolve, 20))
  expect(standIns.length).toBe(3)
})
