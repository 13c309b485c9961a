import { mkdir, rm } from 'node:fs/promises'
import { join } from 'node:path'
import type { FinishPlan } from '@core/audio/finisher'
import { leavesSoundAlone, missOf, planBeforeGain, planWithGain } from '@core/audio/finishPlan'
import { type Encoding, encodingOf, type Recipe } from '@core/audio/recipe'
import type { AudioFile } from '../files/models'
import { sourceOf } from '../files/measuring'
import { type AudioFacts, readAudio } from '../files/reading'
import type { JobRun } from '../jobs/jobs'
import type { Platform } from '../platform'
import { runSound } from '../sound/run'
import type { Finished, Measured } from '../sound/tasks'
import { artworkForTags } from './tagging'
import { type Tags, writeM4a, writeMp3 } from './tags'

/** What was done to the sound, as it is told beside the finished file. */
export interface FinishReport {
  gainDb: number
  limitedByDb: number
  /** Deepest levelling in equal stretches of the whole, at most 600 of them, in dB. */
  reductionsDb: number[]
}

export interface FinishedSound extends Measured { facts: AudioFacts; path: string; report: FinishReport }

const mostTries = 5
const mostReductions = 600
const untouched: FinishReport = { gainDb: 0, limitedByDb: 0, reductionsDb: [] }

/** Makes the delivered file of an episode in a folder of its own: sound by the recipe, then tags. */
export function finishWork({ media, configuration }: Pick<Platform, 'media' | 'configuration'>) {
  /** The sound of a source by a recipe, encoded, without tags. */
  async function encode(file: AudioFile, sourcePath: string, recipe: Recipe, folder: string, run: JobRun): Promise<{ path: string; report: FinishReport }> {
    const encoding = encodingOf(recipe)
    const source = file.measurement!
    const before = planBeforeGain(recipe, source)
    const asPlanned = { ...sourceOf(file, sourcePath), sampleRateHz: before.sampleRateHz, channels: before.channels }
    const expectedMs = source.durationMs
    const levelled = leavesSoundAlone(recipe, source)
      ? source
      : (await runSound({ kind: 'measure', source: asPlanned, plan: before, expectedMs }, part(run, 0, 0.3), configuration)).measurement
    const path = join(folder, encoding.codec === 'mp3' ? 'sound.mp3' : 'sound.m4a')

    let miss = { lu: 0, peakDb: 0 }
    for (let attempt = 1; ; attempt++) {
      const plan = planWithGain(before, recipe, levelled, miss)
      const told = await runSound({ kind: 'finish', source: asPlanned, plan, encoding: parameters(encoding), path, expectedMs }, part(run, 0.3, 0.75), configuration)
      const report = reportOf(plan, told, encoding)
      if (attempt === mostTries) return { path, report }
      const encoded = await measureAt(path, plan, part(run, 0.75, 0.9))
      const more = missOf(recipe, encoded.measurement)
      if (more.lu === 0 && more.peakDb === 0) return { path, report }
      miss = { lu: miss.lu + more.lu, peakDb: miss.peakDb + more.peakDb }
    }
  }

  function measureAt(path: string, { sampleRateHz, channels }: Pick<FinishPlan, 'sampleRateHz' | 'channels'>, run: JobRun, expectedMs = 0): Promise<Measured> {
    return runSound({ kind: 'measure', source: { path, sampleRateHz, channels, junkBytes: 0 }, plan: null, expectedMs }, run, configuration)
  }

  /** Puts the tags around a sound that is coded already. */
  async function tag(sound: Pick<AudioFile, 'type' | 'soundFromBytes' | 'soundToBytes' | 'durationMs'>, soundPath: string, folder: string, tags: Tags): Promise<string> {
    const picture = await artworkForTags(media, tags.artworkId)
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
        const isAsItCame = recipe.encoding === 'as it came'
        const { path: soundPath, report } = isAsItCame ? { path: sourcePath, report: untouched } : await encode(file, sourcePath, recipe, folder, run)
        const sound = isAsItCame ? file : await readAudio(soundPath)
        const tags = tagsOf({ fromMs: isAsItCame ? 0 : recipe.fromMs ?? 0, durationMs: sound.durationMs })
        const path = await tag(sound, soundPath, folder, tags)
        run.signal.throwIfAborted()
        const facts = await readAudio(path)
        const measured = await measureAt(path, { sampleRateHz: facts.sampleRateHz, channels: facts.channels === 1 ? 1 : 2 }, part(run, 0.9, 1), facts.durationMs)
        await take({ ...measured, facts, path, report })
      }),

    /** Writes new tags around the sound of a finished file, whose measurement stays. */
    retag: (finished: AudioFile, episodeId: string, tags: Tags, take: (made: { facts: AudioFacts; path: string }) => Promise<void>): Promise<void> =>
      inFolder(episodeId, finished.sha256, async (folder, soundPath) => {
        const path = await tag(finished, soundPath, folder, tags)
        await take({ facts: await readAudio(path), path })
      }),
  }
}

/** A stretch of a run's progress as a run of its own. */
function part(run: JobRun, from: number, to: number): JobRun {
  return { ...run, progress: share => run.progress(from + share * (to - from)) }
}

function parameters({ codec, bitRateBps }: Encoding): string[] {
  const rate = ['-b:a', String(bitRateBps), '-map_metadata', '-1']
  return codec === 'mp3' ? ['-c:a', 'libmp3lame', ...rate, '-id3v2_version', '0', '-write_id3v1', '0'] : ['-c:a', 'aac', ...rate]
}

function reportOf(plan: FinishPlan, { limitedByDb, reductionsDb }: Finished, encoding: Encoding): FinishReport {
  const width = Math.ceil(reductionsDb.length / mostReductions) || 1
  const drawn = Array.from({ length: Math.ceil(reductionsDb.length / width) }, (_, index) =>
    Math.round(Math.max(...reductionsDb.slice(index * width, (index + 1) * width)) * 10) / 10)
  return { gainDb: plan.gainBeforeDb + plan.gainDb + encoding.gainDb, limitedByDb, reductionsDb: drawn }
}
