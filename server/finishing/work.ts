import { mkdir, rm } from 'node:fs/promises'
import { join } from 'node:path'
import type { Recipe } from '@core/audio/recipe'
import type { AudioFile } from '../files/models'
import { type AudioFacts, readAudio } from '../files/reading'
import type { JobRun } from '../jobs/jobs'
import type { Platform } from '../platform'
import { runSound } from '../sound/run'
import type { FinishReport, Measured } from '../sound/tasks'
import { artworkForTags } from './tagging'
import { type Tags, writeM4a, writeMp3 } from './tags'

export interface FinishedSound extends Measured { facts: AudioFacts; path: string; report: FinishReport }

const untouched: FinishReport = { gainDb: 0, limitedByDb: 0, reductionsDb: [], missedByLu: 0 }

/** Makes the delivered file of an episode in a folder of its own: sound by the recipe, then tags. */
export function finishWork({ media, configuration }: Pick<Platform, 'media' | 'configuration'>) {
  /** Puts the tags around a sound that is coded already. */
  async function tag(sound: Pick<AudioFile, 'type' | 'soundFromBytes' | 'soundToBytes' | 'durationMs'>, soundPath: string, folder: string, tags: Tags): Promise<string> {
    const picture = await artworkForTags(media, tags.artworkId, configuration)
    const path = join(folder, sound.type === 'audio/mpeg' ? 'finished.mp3' : 'finished.m4a')
    const frames = { path: soundPath, from: Number(sound.soundFromBytes), to: Number(sound.soundToBytes) }
    if (sound.type === 'audio/mpeg') await writeMp3(path, frames, tags, picture, sound.durationMs)
    else await writeM4a(path, soundPath, tags, picture, sound.durationMs)
    return path
  }

  /** Works on a stored file in a folder of its own, which is gone afterwards. */
  async function inFolder(episodeId: string, sha256: string, act: (folder: string, path: string) => Promise<void>): Promise<void> {
    const folder = join(media.inbox, `finish-${episodeId}`)
    await rm(folder, { recursive: true, force: true })
    await mkdir(folder)
    const { path, release } = await media.onDisk(sha256)
    try {
      await act(folder, path)
    } finally {
      await release()
      await rm(folder, { recursive: true, force: true })
    }
  }

  return {
    /**
     * Finishes a source and hands the finished sound to `take` while its file is there. `tagsOf` is asked once the
     * finished length is known.
     */
    finish: (file: AudioFile, recipe: Recipe, episodeId: string, tagsOf: (sound: { fromMs: number; durationMs: number }) => Tags, run: JobRun, take: (finished: FinishedSound) => Promise<void>): Promise<void> =>
      inFolder(episodeId, file.sha256, async (folder, sourcePath) => {
        if (recipe.encoding === 'as it came') {
          const path = await tag(file, sourcePath, folder, tagsOf({ fromMs: 0, durationMs: file.durationMs }))
          await take({ facts: await readAudio(path, run.signal), path, report: untouched, measurement: file.measurement!, waveform: file.waveform! })
          return
        }
        const source = { path: sourcePath, junkBytes: Number(file.soundFromBytes ?? 0), channels: file.channels }
        const { name, report, measurement, waveform } = await runSound({ kind: 'finish', source, measurement: file.measurement!, recipe, folder }, run, configuration)
        const soundPath = join(folder, name)
        const sound = await readAudio(soundPath, run.signal)
        const path = await tag(sound, soundPath, folder, tagsOf({ fromMs: recipe.fromMs ?? 0, durationMs: sound.durationMs }))
        run.signal.throwIfAborted()
        await take({ facts: await readAudio(path, run.signal), path, report, measurement, waveform })
      }),

    /** Writes new tags around the sound of a finished file, whose measurement stays. */
    retag: (finished: AudioFile, episodeId: string, tags: Tags, run: JobRun, take: (made: { facts: AudioFacts; path: string }) => Promise<void>): Promise<void> =>
      inFolder(episodeId, finished.sha256, async (folder, soundPath) => {
        const path = await tag(finished, soundPath, folder, tags)
        await take({ facts: await readAudio(path, run.signal), path })
      }),
  }
}
