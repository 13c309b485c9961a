import type { Measurement } from '@core/audio/measurement'
import type { JobRun } from '../jobs/jobs'
import type { Platform } from '../platform'
import type { Source } from '../sound/decoder'
import { runSound, SoundFailure } from '../sound/run'
import { AudioFile } from './models'

/** A file's sound as it is decoded for measuring: its own rate, at most two channels. */
export const sourceOf = (file: AudioFile, path: string): Source => ({
  path, sampleRateHz: file.sampleRateHz, channels: file.channels === 1 ? 1 : 2, junkBytes: Number(file.soundFromBytes ?? 0),
})

/** Registers the job that measures a file, whole, once. */
export function measureFiles(platform: Platform): void {
  const { media, jobs, configuration } = platform

  async function measure(file: AudioFile, run: JobRun): Promise<{ measurement: Measurement; waveform: Buffer }> {
    const { path, release } = await media.onDisk(file.sha256)
    try {
      const { measurement, waveform } = await runSound({ kind: 'measure', source: sourceOf(file, path), plan: null, expectedMs: file.durationMs }, run, configuration)
      if (measurement.durationMs === 0) throw new SoundFailure('Nothing could be decoded.')
      return { measurement, waveform: Buffer.from(waveform) }
    } finally {
      await release()
    }
  }

  jobs.handle('measure-file', async ({ fileId }, run) => {
    const file = await AudioFile.findByPk(fileId)
    if (!file || file.measuring === 'done') return
    try {
      const { measurement, waveform } = await measure(file, run)
      // MP3 and M4A tell their length by their frames; for the others what was decoded is the exact one.
      const durationMs = file.type === 'audio/mpeg' || file.type === 'audio/mp4' ? file.durationMs : Math.round(measurement.durationMs)
      await file.update({ measurement, waveform, durationMs, measuring: 'done' })
    } catch (error) {
      if (!run.signal.aborted && run.isLastTry) await file.update({ measuring: 'failed' })
      throw error
    }
  }, 'sound')
}
