import type { Transaction } from 'sequelize'
import { endingOf } from '@core/audio/delivery'
import { slugFrom } from '@core/address/slug'
import { oneCut, type Timeline } from '@core/audio/timeline'
import { keptBy, type Recipe } from '@core/audio/recipe'
import { type Change, episodeChanges } from '../../show/episodes/change'
import { Episode } from '../../show/episodes/models'
import { fileIdOf, fileIn, withFiles } from '../../show/episodes/roles'
import { chaptersIn } from '../../show/episodes/chapters'
import { tagsFor } from '../../show/episodes/tags'
import { fileKeeper } from '../../media/files/keeper'
import type { AudioFile } from '../../media/files/models'
import type { JobDefinition, JobRun, Payloads } from '../../platform/jobs/kinds'
import { type Bringing, blobKeeper } from '../../platform/storage/blobs'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import type { AudioFacts } from '../../media/sound/reading'
import { Refusal } from '../../platform/refusal'
import { sameRecipe } from './service'
import { finishWork } from './work'

/** An hour takes about a minute. */
const limitMs = 2 * 3600_000

interface Made {
  facts: AudioFacts
  path: string
}

/** The job that makes an episode's delivered file by its recipe. */
export function finishEpisode(platform: Platform): JobDefinition<Payloads['finish-episode']> {
  const {
    clock,
    media,
    configuration: { publicUrl },
  } = platform
  const { changeEpisode } = episodeChanges(platform)
  const blobs = blobKeeper(platform)
  const files = fileKeeper(platform)
  const work = finishWork(platform)

  /** Writes the outcome down, unless source or recipe have become others meanwhile. */
  async function settle(episode: Episode, outcome: (transaction: Transaction) => Promise<Change>): Promise<void> {
    await changeEpisode(episode, {}, async (current, transaction) => {
      const isOther =
        current.finishing !== 'working' ||
        fileIdOf(current, 'source') !== fileIdOf(episode, 'source') ||
        !sameRecipe(current.recipe, episode.recipe)
      return isOther ? null : outcome(transaction)
    })
  }

  const fail = (episode: Episode, finishProblem: Episode['finishProblem']): Promise<void> =>
    settle(episode, async () => ({ sound: { finishing: 'failed', finishProblem } }))

  /** Keeps the finished file with its waveform, and makes it the episode's. */
  async function keep(
    episode: Episode,
    { facts: { picture: _picture, ...facts }, path }: Made,
    measurement: AudioFile['measurement'],
    waveform: Bringing,
    finishedWith: Episode['finishedWith'],
  ): Promise<void> {
    await blobs.store({ path, sha256: facts.fingerprint })
    const words =
      slugFrom([episode.number, episode.title].filter(Boolean).join(' '), {
        language: episode.show!.language,
      }) || 'episode'
    const name = `${words}.${endingOf(facts.type)}`
    await settle(episode, async transaction => {
      const file = {
        ...facts,
        showId: episode.showId,
        name,
        pictureId: null,
        origin: 'finish' as const,
        measuring: 'done' as const,
        measurement,
        waveformId: waveform.sha256,
      }
      const finished = await files.keep(file, [{ path, sha256: facts.fingerprint }, waveform], transaction)
      return { files: { finished: finished.id }, sound: { finishing: 'done', finishedWith, finishProblem: null } }
    })
  }

  /** The waveform of a file that is kept already; the new file holds it, too. */
  async function waveformOf<T>({ waveformId }: AudioFile, act: (waveform: Bringing) => Promise<T>): Promise<T> {
    const { path, release } = await media.onDisk(waveformId!)
    try {
      return await act({ path, sha256: waveformId! })
    } finally {
      await release()
    }
  }

  async function make(episode: Episode, file: AudioFile, recipe: Recipe, run: JobRun): Promise<void> {
    const tagsOf = (sound: Timeline) =>
      tagsFor(episode, episode.show!, publicUrl, clock.now(), chaptersIn(episode, file, sound))
    const earlier = episode.finishedWith
    const earlierFile = fileIn(episode, 'finished')
    if (earlier && earlierFile?.waveformId && earlier.fileId === file.id && sameRecipe(earlier.recipe, recipe)) {
      const { fromMs } = keptBy(recipe, file.durationMs)
      const tags = tagsOf(oneCut(fromMs, earlierFile.durationMs))
      await work.retag(earlierFile, tags, run, made =>
        waveformOf(earlierFile, waveform =>
          keep(episode, made, earlierFile.measurement, waveform, { ...earlier, tags }),
        ),
      )
      return
    }
    let tags = tagsOf(oneCut(0, file.durationMs))
    await work.finish(
      file,
      recipe,
      sound => (tags = tagsOf(sound)),
      run,
      async ({ measurement, waveform, report, ...made }) => {
        const take = (bringing: Bringing): Promise<void> =>
          keep(episode, made, measurement, bringing, { fileId: file.id, recipe, tags, report })
        await (waveform ? blobs.written([waveform], ([bringing]) => take(bringing!)) : waveformOf(file, take))
      },
    )
  }

  return {
    lane: 'finishing',
    limitMs,
    async run({ episodeId }, run) {
      const episode = await Episode.findByPk(episodeId, { include: [{ model: Show, as: 'show' }, withFiles()] })
      const source = episode && fileIn(episode, 'source')
      if (!source || !episode?.recipe || episode.finishing !== 'working') return
      try {
        await make(episode, source, episode.recipe, run)
      } catch (error) {
        if (run.signal.aborted) throw error
        const problem = problemFor(error)
        if (!problem) throw error
        await fail(episode, problem)
      }
    },
    async gaveUp({ episodeId }) {
      const episode = await Episode.findByPk(episodeId, { include: withFiles('type') })
      if (episode && !episode.deletedAt) await fail(episode, neverFinished)
    },
  }
}

const neverFinished = {
  title: 'The sound could not be finished',
  detail: 'It was tried several times. The file may be damaged in a place that was not found before.',
  todo: 'Export it again and bring that, or let it go out as it was uploaded.',
}

/** What to say of an error that trying again will not mend; null for those that may pass. */
function problemFor(error: unknown): Episode['finishProblem'] {
  if (error instanceof Refusal) return { title: error.title, detail: error.detail, todo: error.todo }
  const { code, message } = error as NodeJS.ErrnoException
  if (code === 'ENOSPC' || /No space left/i.test(message)) {
    return {
      title: 'The disk is full',
      detail: 'There was no room to write the finished file.',
      todo: 'Delete files from the shelf that no episode uses, then finish again.',
    }
  }
  return null
}
