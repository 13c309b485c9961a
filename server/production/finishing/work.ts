import { join } from 'node:path'
import { endingOf } from '@core/audio/delivery'
import { oneCut, type Timeline } from '@core/audio/timeline'
import type { Measurement } from '@core/audio/measurement'
import type { Recipe } from '@core/audio/recipe'
import { withBytes } from '../../media/files/lent'
import type { AudioFile } from '../../media/files/models'
import type { JobRun } from '../../platform/jobs/kinds'
import type { Platform } from '../../platform/platform'
import type { AudioFacts } from '../../media/sound/reading'
import { runSound } from '../../media/sound/run'
import type { SourceFiles } from '../../media/sound/source'
import type { FinishReport } from '../../media/sound/tasks'
import type { Tags } from '../../media/files/tags'
import { picturesForTags } from './picturesForTags'
import { writeM4a, writeMp3 } from './writeTags'

export interface FinishedSound {
  facts: AudioFacts
  path: string
  report: FinishReport
  measurement: Measurement
  /** Null where the waveform is the source's. */
  waveform: Uint8Array | null
}

const untouched: FinishReport = { gainDb: 0, limitedByDb: 0, reductionsDb: [], missedByLu: 0 }

/** Makes the delivered file of an episode in a folder of its own: sound by the recipe, then tags. */
export function finishWork({ media, configuration }: Pick<Platform, 'media' | 'configuration'>) {
  /** Puts the tags around a sound that is coded already. */
  async function tag(
    sound: Pick<AudioFile, 'type' | 'soundFromBytes' | 'soundToBytes' | 'durationMs'>,
    soundPath: string,
    folder: string,
    tags: Tags,
  ): Promise<string> {
    const pictures = await picturesForTags(media, tags, configuration)
    const path = join(folder, `finished.${endingOf(sound.type)}`)
    const frames = { path: soundPath, from: Number(sound.soundFromBytes), to: Number(sound.soundToBytes) }
    if (sound.type === 'audio/mpeg') await writeMp3(path, frames, tags, pictures, sound.durationMs)
    else await writeM4a(path, soundPath, tags, pictures.artwork, sound.durationMs)
    return path
  }

  /** Works on a sound in a folder of its own, which is gone afterwards. */
  const inFolder = (
    run: JobRun,
    file: AudioFile,
    act: (folder: string, source: SourceFiles) => Promise<void>,
  ): Promise<void> => media.workIn(`finish-${run.id}`, folder => withBytes(media, file, source => act(folder, source)))

  const read = (path: string, run: JobRun): Promise<AudioFacts> =>
    runSound({ kind: 'read', path }, { signal: run.signal, progress: () => undefined }, configuration)

  return {
    /**
     * Finishes a source and hands the finished sound to `take` while its file is there. `tagsOf` is asked once the
     * finished length is known.
     */
    finish: (
      file: AudioFile,
      recipe: Recipe,
      tagsOf: (sound: Timeline) => Tags,
      run: JobRun,
      take: (finished: FinishedSound) => Promise<void>,
    ): Promise<void> =>
      inFolder(run, file, async (folder, source) => {
        if (recipe.encoding === 'as it came') {
          const path = await tag(file, pathOf(source), folder, tagsOf(oneCut(0, file.durationMs)))
          await take({
            facts: await read(path, run),
            path,
            report: untouched,
            measurement: file.measurement!,
            waveform: null,
          })
          return
        }
        const { name, report, measurement, waveform } = await runSound(
          {
            kind: 'finish',
            source: { ...source, channels: file.channels },
            measurement: file.measurement!,
            recipe,
            folder,
          },
          run,
          configuration,
        )
        const soundPath = join(folder, name)
        const sound = await read(soundPath, run)
        const path = await tag(sound, soundPath, folder, tagsOf(oneCut(recipe.fromMs ?? 0, sound.durationMs)))
        run.signal.throwIfAborted()
        await take({ facts: await read(path, run), path, report, measurement, waveform })
      }),

    /** Writes new tags around the sound of a finished file, whose measurement stays. */
    retag: (
      finished: AudioFile,
      tags: Tags,
      run: JobRun,
      take: (made: { facts: AudioFacts; path: string }) => Promise<void>,
    ): Promise<void> =>
      inFolder(run, finished, async (folder, sound) => {
        const path = await tag(finished, pathOf(sound), folder, tags)
        await take({ facts: await read(path, run), path })
      }),
  }
}

/** What goes out as it came is a file. */
function pathOf(source: SourceFiles): string {
  if ('mix' in source) throw new Error('A mix has no bytes of its own.')
  return source.path
}
