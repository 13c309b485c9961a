import { execFile } from 'node:child_process'
import { promisify } from 'node:util'
import { expect, inject, it } from 'vitest'

it('several benches run in one command, each with a house of its own: also two that make the same show', async () => {
  const { stdout } = await promisify(execFile)(process.execPath, ['scripts/bench.mjs', 'keptFeed', 'keptFeed'], {
    env: { ...process.env, DEMO_FOLDER: inject('demoFolder') },
  })
  expect(stdout.match(/^a feed of 200 items .* kept: [\d.]+ ms of processor time, \d+ times/gm)).toHaveLength(2)
})
