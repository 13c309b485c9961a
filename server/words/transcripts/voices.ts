import { execFile } from 'node:child_process'
import { promisify } from 'node:util'

let known: Promise<readonly string[]> | null = null

/** What espeak-ng speaks, by its own list; nothing where it is not there. */
const voices = (): Promise<readonly string[]> =>
  (known ??= promisify(execFile)('espeak-ng', ['--voices']).then(
    ({ stdout }) =>
      stdout
        .split('\n')
        .slice(1)
        .flatMap(line => line.trim().split(/\s+/)[1] ?? []),
    () => [],
  ))

/** Where a language goes by another name there, or by that of one of its kinds. */
const others: Readonly<Record<string, string>> = { en: 'en-gb', fr: 'fr-fr', zh: 'cmn' }

/** The voice that speaks a language (BCP 47); null where none does. */
export async function voiceFor(language: string): Promise<string | null> {
  const all = new Set(await voices())
  const [primary = ''] = language.split('-')
  return (
    [language, others[language], primary, others[primary]].find(name => name !== undefined && all.has(name)) ?? null
  )
}
