import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { readdir, readFile } from 'node:fs/promises'
import { join, parse } from 'node:path'

const isSound = /\.(mp3|m4a)$/

/** What is said in each sound of a folder that has its words beside it, in `spoken`, by the SHA-256 of the sound. */
export async function wordsIn(folder: string): Promise<ReadonlyMap<string, string>> {
  const known = new Map<string, string>()
  for (const name of (await readdir(folder)).filter(each => isSound.test(each))) {
    const vtt = await readFile(join(folder, 'spoken', `${parse(name).name}.vtt`), 'utf8').catch(() => null)
    if (vtt) known.set(await sha256Of(createReadStream(join(folder, name))), vtt)
  }
  return known
}

/** The SHA-256 of what comes in, of which nothing is kept. */
export async function sha256Of(bytes: AsyncIterable<Uint8Array>): Promise<string> {
  const hash = createHash('sha256')
  for await (const part of bytes) hash.update(part)
  return hash.digest('hex')
}
