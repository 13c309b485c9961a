import { cutShortFinding, type Finding } from '@core/audio/findings'
import type { Measurement } from '@core/audio/measurement'
import { surroundChannels } from '@core/audio/surroundMeter'
import { transact } from '../database/transact'
import { Episode } from '../episodes/models'
import type { JobRun } from '../jobs/jobs'
import type { Platform } from '../platform'
import { touchFeed } from '../shows/feedRevision'
import type { Source } from '../sound/decoder'
import { runSound, SoundFailure } from '../sound/run'
import { AudioFile } from './models'

/** Hearing an hour takes seconds; a file that takes so long is built to. */
const limitMs = 60 * 60_000

/** A file's sound as it is decoded for measuring: its own rate, and its channels as far as the standard weighs them. */
const sourceOf = (file: AudioFile, path: string): Source => ({
  path, sampleRateHz: file.sampleRateHz, channels: file.channels > 2 ? surroundChannels : file.channels === 1 ? 1 : 2, junkBytes: Number(file.soundFromBytes ?? 0),
})

/** Registers the job that measures a file, whole, once. */
export function measureFiles(platform: Platform): void {
  const { database, clock, media, jobs, events, configuration } = platform

  async function measure(file: AudioFile, run: JobRun): Promise<{ measurement: Measurement; waveform: Buffer }> {
    const { path, release } = await media.onDisk(file.sha256)
    try {
      const { measurement, waveform } = await runSound({ kind: 'measure', source: sourceOf(file, path), expectedMs: file.durationMs }, run, configuration)
      if (measurement.durationMs === 0) throw new SoundFailure('Nothing could be decoded.')
      return { measurement, waveform: Buffer.from(waveform) }
    } finally {
      await release()
    }
  }

  jobs.handle('measure-file', async ({ fileId }, run) => {
    const file = await AudioFile.findByPk(fileId)
    if (!file || file.measuring === 'done') return
    const { measurement, waveform } = await measure(file, run)
    const told = asHeard(file, measurement)
    const isOtherLength = told.durationMs !== file.durationMs
    await transact(database, async transaction => {
      await file.update({ measurement, waveform, ...told, measuring: 'done' }, { transaction })
      const users = await Episode.findAll({ where: { fileId: file.id, deletedAt: null }, attributes: ['id', 'showId'], transaction })
      for (const { id, showId } of users) await events.note({ kind: 'episode', showId, id }, transaction)
      const released = !isOtherLength ? [] : await Episode.findAll({ where: { releasedFileId: file.id, standing: 'released' }, attributes: ['showId'], transaction })
      if (released[0]) await touchFeed(released[0].showId, clock.now(), transaction)
    })
  }, {
    lane: 'measuring',
    limitMs,
    gaveUp: ({ fileId }) => transact(database, async transaction => {
      await AudioFile.update({ measuring: 'failed' }, { where: { id: fileId, measuring: 'waiting' }, transaction })
    }),
  })
}

/** How far what a file announces may lie from what is heard before that is told instead. */
const mostDifferenceMs = 60

/** What hearing all of a file tells better than its head: how long it is, and whether it breaks off. */
function asHeard(file: AudioFile, { durationMs: heardMs }: Measurement): Pick<AudioFile, 'durationMs' | 'bitRateBps' | 'findings'> {
  const durationMs = Math.abs(file.durationMs - heardMs) > mostDifferenceMs ? Math.round(heardMs) : file.durationMs
  const bitRateBps = file.bitRateBps || Math.round((Number(file.bytes) * 8000) / heardMs)
  const cut: Finding | null = file.findings.some(({ code }) => code === 'cut-short') ? null : cutShortFinding(file.durationMs, heardMs)
  return { durationMs, bitRateBps, findings: cut ? [...file.findings, cut] : file.findings }
}
