import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import rules from '@core/feed/rules?edition'
import xml from '@core/feed/xml?edition'
import { digestOf, textsOf } from '../vite.editions.ts'

const folder = mkdtempSync(join(tmpdir(), 'lake-letter-editions-'))
afterAll(() => rmSync(folder, { recursive: true }))

const write = (name: string, text: string): void => writeFileSync(join(folder, name), text)
const edition = async (): Promise<string> =>
  digestOf(
    await textsOf(join(folder, 'rules.ts'), async (name, from) =>
      name.startsWith('.') ? resolve(from, '..', `${name}.ts`) : name,
    ),
  )

it('the edition of a module is another one as soon as anything that it imports is, but for what is only a type', async () => {
  write(
    'rules.ts',
    "import { words } from './words'\nimport type { Word } from './types'\nimport fs from 'node:fs'\nexport { words }",
  )
  write('words.ts', "import { first } from './first'\nimport { words } from './rules'\nexport const words = [first]")
  write('first.ts', "export const first = 'water'")
  write('types.ts', 'export type Word = string')
  const before = await edition()
  expect(before).toMatch(/^[0-9a-f]{16}$/)
  write('types.ts', 'export type Word = number')
  expect(await edition()).toBe(before)
  write('first.ts', "export const first = 'ink'")
  expect(await edition()).not.toBe(before)
})

it('a module may ask for it by the address of another one', () => {
  expect(rules).toMatch(/^[0-9a-f]{16}$/)
  expect(xml).toMatch(/^[0-9a-f]{16}$/)
  expect(rules).not.toBe(xml)
})
