import { mkdir, statfs } from 'node:fs/promises'
import { Halt, plainReason } from './halt.mjs'

const leastBytes = 500e6

/** Makes a folder and sees to it that there is room in it. */
export async function needRoom(folder) {
  await mkdir(folder, { recursive: true }).catch(error => {
    throw new Halt(plainReason(error))
  })
  const { bavail, bsize } = await statfs(folder)
  if (bavail * bsize < leastBytes) {
    throw new Halt(
      `Only ${Math.round((bavail * bsize) / 1e6)} MB of disk are free where Lake Letter keeps its data; free at least ${leastBytes / 1e6} MB and start again.`,
    )
  }
}
