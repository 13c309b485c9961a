import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = fileURLToPath(new URL('../..', import.meta.url))
/** Everything that running makes: databases, media, marks. Safe to delete while nothing runs. */
export const runFolder = join(root, '.run')
