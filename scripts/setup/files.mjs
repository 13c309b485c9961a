import { readFileSync } from 'node:fs'

/** The text of a file; null where there is none. */
export function readOrNull(path) {
  try {
    return readFileSync(path, 'utf8')
  } catch {
    return null
  }
}
