import { cutShortFinding, type Finding } from '@core/audio/findings'
import type { Measurement } from '@core/audio/measurement'
import { surroundChannels } from '@core/audio/surroundMeter'
import { transact } from '../../platform/database/transact'
import { episodesWith } from '../../show/episodes/users'
import { withBytes } from '../../media/files/lent'
import { AudioFile } from '../../media/files/models'
import type { JobDefinition, JobRun, Payloads } from '../../platform/jobs/kinds'
import { blobKeeper } from '../../platform/storage/blobs'
import type { Platform } from '../../platform/platform'
import { touchFeed } from '../../show/shows/feedRevision'
import type { Source, SourceFiles } from '../../media/sound/source'
import { runSound, SoundFailure } from '../../media/sound/run'
import type { Measured } from '../../media/sound/tasks'

/** Hearing an hour takes seconds; a file that takes so long is built to. */
const limitMs = 60 * 60_000

/** A file's sound as it is decoded for measuring: its own rate, and its channels as far as the standard weighs them. */
const sourceOf = (file: AudioFile, source: SourceFiles): Source => ({
  ...source,
  sampleRateHz: file.sampleRateHz,
  channels: file.channels > 2 ? surroundChannels : file.channels === 1 ? 1 : 2,
})

/** The job that measures a file, whole, once. */
export function measureFile(platform: Platform): JobDefinition<Payloads['measure-file']> {
  const { database, media, events, configuration } = platform
  const blobs = blobKeeper(platform)

  const measured = (file: AudioFile, run: JobRun): Promise<Measured> =>
    withBytes(media, file, async source => {
      const heard = await runSound(
        { kind: 'measure', source: sourceOf(file, source), expectedMs: file.durationMs },
        run,
        configuration,
      )
      if (heard.measurement.durationMs === 0) throw new SoundFailure('Nothing could be decoded.')
      return heard
    })

  return {
    lane: 'measuring',
    limitMs,
    async run({ fileId }, run) {
      const file = await AudioFile.findByPk(fileId)
      if (!file || file.measuring === 'done') return
      const { measurement, waveform } = await measured(file, run)
      const told = asHeard(file, measurement)
      const isOtherLength = told.durationMs !== file.durationMs
      await blobs.written([waveform], ([bringing]) =>
        transact(database, async transaction => {
          // It may have been deleted meanwhile, and then holds nothing.
          if (!(await AudioFile.findByPk(file.id, { attributes: ['id'], lock: true, transaction }))) return
          await blobs.hold(file.id, bringing!, transaction)
          await file.update({ measurement, waveformId: bringing!.sha256, ...told, measuring: 'done' }, { transaction })
          for (const { id, showId } of await episodesWith(file.id, 'source', transaction))
            await events.note({ kind: 'episode', showId, id }, transaction)
          const isInFeed =
            isOtherLength &&
            (await episodesWith(file.id, 'released', transaction)).some(({ status }) => status === 'released')
          if (isInFeed) await touchFeed(platform, file.showId, transaction)
        }),
      )
    },
    gaveUp: ({ fileId }) =>
      transact(database, async transaction => {
        await AudioFile.update({ measuring: 'failed' }, { where: { id: fileId, measuring: 'waiting' }, transaction })
      }),
  }
}

/** How far what a file announces may lie from what is heard before that is told instead. */
const mostDifferenceMs = 60

/** What hearing all of a file tells better than its head: how long it is, and whether it breaks off. */
function asHeard(
  file: AudioFile,
  { durationMs: heardMs }: Measurement,
): Pick<AudioFile, 'durationMs' | 'bitRateBps' | 'findings'> {
  const durationMs = Math.abs(file.durationMs - heardMs) > mostDifferenceMs ? Math.round(heardMs) : file.durationMs
  const bitRateBps = file.bitRateBps || Math.round((Number(file.bytes) * 8000) / heardMs)
  const cut: Finding | null = file.findings.some(({ code }) => code === 'cut-short')
    ? null
    : cutShortFinding(file.durationMs, heardMs)
  return { durationMs, bitRateBps, findings: cut ? [...file.findings, cut] : file.findings }
}
