import { execFileSync } from 'node:child_process'
import { expect, it } from 'vitest'

it('what a part of the studio says is printed by file: texts, attributes, and strings of a script', () => {
  const said = execFileSync(process.execPath, ['scripts/words.mjs', 'site/comments'], { encoding: 'utf8' }).split('\n')
  expect(said.filter(line => /^#/.test(line))).toEqual(['# site/comments'])
  expect(said).toContain('CommentsPage.vue')
  expect(said).toContain('  {{ list.waiting }} to read')
  expect(said).toContain('  Block this writer')
  expect(said).toContain('  Waiting to be read')
})
