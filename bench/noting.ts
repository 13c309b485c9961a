import { createHash, randomBytes } from 'node:crypto'
import { writeFile, mkdtemp, rm } from 'node:fs/promises'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { QueryTypes } from 'sequelize'
import { createApp } from '@server/app/app'
import { openPlatform } from '@server/app/openPlatform'
import { counter } from '@server/numbers/counting/counter'
import { systemClock } from '@server/platform/clock'
import { readConfiguration } from '@server/platform/configuration'
import type { DeliveryLog } from '@server/platform/deliveries/log'
import type { Platform } from '@server/platform/platform'
import { enclosureAddress } from '@server/show/episodes/views'
import { type Load, requestsPerSecond, seconds } from './load'
import { median } from './median'

/** An hour at 128 kbit/s. */
const fileBytes = 57_600_000
const listeners = 20_000
const rounds = 9

/**
 * What noting each delivery takes of serving audio: the house as it is against the same one that notes nothing, by the CPU time of
 * the server with all its threads, since what a line carries in a second swings more than that.
 */
export async function benchNoting(): Promise<void> {
  const platform = await openPlatform(readConfiguration(process.env), systemClock)
  const nothing: DeliveryLog = {
    add: () => undefined,
    follow: () => undefined,
    flush: () => Promise.resolve(),
    stop: () => Promise.resolve(),
  }
  const houses = await Promise.all([platform, { ...platform, deliveries: nothing }].map(each => createApp(each)))
  const [noting, silent] = await Promise.all(
    houses.map(async app => {
      await app.listen({ port: 0, host: '127.0.0.1' })
      return `http://127.0.0.1:${(app.server.address() as AddressInfo).port}`
    }),
  )
  const folder = await mkdtemp(join(tmpdir(), 'lake-letter-bench-'))
  const path = await longFile(platform, folder)
  const script = join(folder, 'listeners.lua')
  // Each request is of another listener’s program, and begins elsewhere in the file.
  await writeFile(
    script,
    `request = function()
  local n = math.random(${listeners})
  wrk.headers["User-Agent"] = "Kelp/" .. n .. " (iPhone; iOS 17.1)"
  if part > 0 then
    local from = part * math.random(0, math.floor(${fileBytes} / part) - 1)
    wrk.headers["Range"] = "bytes=" .. from .. "-" .. (from + part - 1)
  end
  return wrk.format()
end
function init(args) part = tonumber(args[1]) end
`,
  )
  // All listeners have been here today: of each the first answer is dearer, and there are too few of those to be measured by rounds.
  for (let n = 0; n < 3; n++) await requestsPerSecond({ url: noting! + path, script: [script, '1024'] })
  for (const [name, part] of [
    ['an hour, whole', 0],
    ['ranges of 1 MiB', 1024 * 1024],
    ['ranges of 64 KiB', 64 * 1024],
  ] as const) {
    const taken: [number, number][] = []
    for (let n = 0; n < rounds; n++) {
      const cpu = (house: string) => cpuOf({ url: house + path, script: [script, String(part)] })
      // Each goes first in every other round: what else runs here comes and goes.
      const first = await cpu(n % 2 ? silent! : noting!)
      const second = await cpu(n % 2 ? noting! : silent!)
      taken.push(n % 2 ? [second, first] : [first, second])
    }
    const [ours, theirs] = [median(taken.map(([one]) => one)), median(taken.map(([, other]) => other))]
    const ratio = median(taken.map(([one, other]) => one / other))
    console.log(
      `audio to ${listeners} listeners, ${name}, CPU for each answer, noted against not noted: ${ratio.toFixed(3)} (${ours.toFixed(0)} : ${theirs.toFixed(0)} µs)`,
    )
  }
  await platform.deliveries.flush()
  const from = performance.now()
  await counter(platform).countAll()
  console.log(`what was noted of it, counted in ${((performance.now() - from) / 1000).toFixed(1)} s`)
  await Promise.all(houses.map(app => app.close()))
  await rm(folder, { recursive: true })
  await platform.deliveries.stop()
  await platform.events.stop()
  await platform.database.close()
}

/** Puts a file of an hour in the place of an episode's, and tells its address. */
async function longFile({ media, database }: Platform, folder: string): Promise<string> {
  const content = randomBytes(fileBytes)
  const sha256 = createHash('sha256').update(content).digest('hex')
  const file = join(folder, 'hour')
  await writeFile(file, content)
  await media.take(file, sha256)
  const [row] = await database.query<{ id: string; fileId: string; type: string }>(
    `SELECT e.id, f.id AS fileId, f.type FROM episodes e JOIN episode_files l ON l.episode_id = e.id AND l.role = 'released' JOIN files f ON f.id = l.file_id
      WHERE e.status = 'released' LIMIT 1`,
    { type: QueryTypes.SELECT },
  )
  await database.query('UPDATE files SET fingerprint = ?, bytes = ? WHERE id = ?', {
    replacements: [sha256, fileBytes, row!.fileId],
  })
  return enclosureAddress('', row!.id, { fingerprint: sha256, type: row!.type, address: null })
}

/** CPU time of this process for each answer, in microseconds. */
async function cpuOf(load: Load): Promise<number> {
  const from = process.cpuUsage()
  const answers = (await requestsPerSecond(load)) * seconds
  const { user, system } = process.cpuUsage(from)
  return (user + system) / answers
}
