import { deepEqual } from 'fast-equals'
import { Op } from 'sequelize'
import type { AudioFile as AudioFileView, Sound } from '@contract/sound'
import { advice, clipped, finishFindings } from '@core/audio/advice'
import { deliveryFindings, unmeasured } from '@core/audio/delivery'
import { trimOf } from '@core/audio/finishPlan'
import { type Recipe, withPossibleEnds } from '@core/audio/recipe'
import { chapterFrom } from '@core/chapters/chapters'
import { heardLufs, usualLoudness } from '@core/audio/usual'
import { AudioFile } from '../../media/files/models'
import { Upload } from '../../media/files/upload'
import { Job } from '../../platform/jobs/models'
import { studioPictureAddress } from '../../media/pictures/names'
import type { Platform } from '../../platform/platform'
import type { Show } from '../shows/models'
import { usualRecipeOf } from '../shows/service'
import type { FinishReport } from '../../media/sound/tasks'
import { chaptersNow } from './chapters'
import { Episode, EpisodeFile } from './models'
import { fileIdOf, fileIn, filesIn, withRole } from './roles'
import { tagsFor } from './tags'
import { uploadOf } from './views'

const mostCompany = 10
const mostArriving = 50
const dayMs = 24 * 3600_000

/** An episode's sound as the desk shows it. The episode comes with its show and its files. */
export async function soundOf(
  episode: Episode,
  { clock, configuration: { publicUrl } }: Pick<Platform, 'clock' | 'configuration'>,
): Promise<Sound> {
  const { show } = episode
  const file = fileIn(episode, 'source')
  const [arriving, company, alsoIn, work] = await Promise.all([
    partsArriving(episode, clock.now()),
    companyOf(episode),
    alsoInOf(episode),
    workOn(episode, clock.now()),
  ])
  const usualLufs = usualLoudness(company.map(({ lufs }) => lufs))
  const recipe = usualFor(show!, file)
  const finished = episode.finishing === 'done' ? fileIn(episode, 'finished') : null
  return {
    version: episode.soundVersion,
    source: file ? fileOf(file) : null,
    taken: file?.mix ?? null,
    parts: filesIn(episode, 'mixed').map(fileOf),
    arriving,
    alsoIn,
    recipe: episode.recipe,
    usual: recipe,
    finishing: episode.finishing,
    problem: episode.finishProblem,
    finished: finished && fileOf(finished),
    report: finished ? reportOf(episode) : null,
    tagsAreOld: finished !== null && tagsAreOld(episode, publicUrl, clock.now()),
    work,
    findings: file ? findingsOf(episode, file, finished, { recipe: episode.recipe ?? recipe, usualLufs }) : [],
    company,
  }
}

/** A file as the studio shows it. */
export function fileOf(file: AudioFile): AudioFileView {
  const {
    id,
    name,
    fingerprint,
    bytes,
    type,
    durationMs,
    codec,
    bitRateBps,
    sampleRateHz,
    channels,
    origin,
    tags,
    pictureId,
    chapters,
    measuring,
    measurement,
    address,
  } = file
  return {
    id,
    name,
    fingerprint,
    bytes: Number(bytes),
    type,
    durationMs,
    codec,
    bitRateBps,
    sampleRateHz,
    channels,
    origin,
    tags,
    chapters,
    measuring,
    measurement,
    address,
    pictureAddress: pictureId && studioPictureAddress({ id: pictureId }),
    playAddress: address ?? `/api/v1/files/${id}/sound`,
    waveformAddress: `/api/v1/files/${id}/waveform`,
    framesAddress: `/api/v1/files/${id}/frames`,
  }
}

/** The show's usual recipe for a source: silence at the ends is cut off, and one voice in one channel stays in one. */
function usualFor(show: Show, file: AudioFile | null): Recipe {
  const usual = usualRecipeOf(show)
  if (!file?.measurement) return usual
  const isMono = show.recipe === null && ['mono', 'dual mono'].includes(file.measurement.image)
  return withPossibleEnds({ ...usual, ...trimOf(file.measurement), ...(isMono && { encoding: 'speech' as const }) })
}

function findingsOf(
  episode: Episode,
  source: AudioFile,
  finished: AudioFile | null,
  standard: Parameters<typeof advice>[1],
): Sound['findings'] {
  const heard = finished ?? source
  return [
    ...deliveryFindings({ type: heard.type, channels: heard.channels }),
    ...(finished ? [] : source.findings),
    ...(source.measuring === 'failed' ? [unmeasured] : []),
    ...(heard.measurement ? advice(heard.measurement, standard) : []),
    ...(finished ? finishFindings(reportOf(episode), standard.recipe) : []),
    // Limiting hides from the meter what was clipped before; it is heard all the same.
    ...(finished && source.measurement ? [clipped(source.measurement, standard)].filter(found => found !== null) : []),
  ]
}

/** What was done to the finished sound; one that was finished long ago does not tell by how much it missed. */
const reportOf = ({ finishedWith }: Episode): FinishReport => ({
  ...finishedWith!.report,
  missedByLu: finishedWith!.report.missedByLu ?? 0,
})

function tagsAreOld(episode: Episode, publicUrl: string, now: Date): boolean {
  const { tags } = episode.finishedWith!
  const current = tagsFor(episode, episode.show!, publicUrl, now, chaptersNow(episode))
  // The date of an unreleased episode is that of the finishing, and no reason to finish again.
  const told = ({ date: _date, webAddress: _address, chapters, ...rest }: typeof tags) => ({
    ...rest,
    // What tells chapters apart is in no file; those of before they had more than a title are as they would be now.
    chapters: chapters.map(chapter => ({ ...chapterFrom(chapter), ...chapter, id: '' })),
  })
  // Files of before these were written do not have them.
  const before = { subtitle: '', keywords: [], people: [] }
  return !deepEqual({ ...before, ...told(tags) }, told(current))
}

/** That one was refused is told for a day. */
async function partsArriving({ id: episodeId }: Episode, now: Date): Promise<Sound['arriving']> {
  const uploads = await Upload.findAll({
    where: {
      episodeId,
      role: ['piece', 'bed'],
      [Op.or]: [
        { state: ['receiving', 'reading'] },
        { state: 'refused', createdAt: { [Op.gt]: new Date(+now - dayMs) } },
      ],
    },
    order: [['createdAt', 'DESC']],
    limit: mostArriving,
  })
  return uploads.map(uploadOf)
}

async function companyOf(episode: Episode): Promise<Sound['company']> {
  const others = await Episode.findAll({
    where: {
      showId: episode.showId,
      deletedAt: null,
      status: 'released',
      id: { [Op.ne]: episode.id },
      ...(episode.status === 'released' && { releaseAt: { [Op.lt]: episode.releaseAt! } }),
    },
    attributes: ['id', 'title', 'number', 'releaseAt'],
    include: withRole('released', 'measurement'),
    order: [['releaseAt', 'DESC']],
    limit: mostCompany,
  })
  return others.reverse().flatMap(other => {
    const { id, title, number } = other
    const { measurement } = fileIn(other, 'released')!
    const lufs = measurement && heardLufs(measurement)
    return lufs === null ? [] : [{ id, title, number, lufs }]
  })
}

async function alsoInOf(episode: Episode): Promise<Sound['alsoIn']> {
  const fileId = fileIdOf(episode, 'source')
  if (!fileId) return []
  const others = await Episode.findAll({
    where: { id: { [Op.ne]: episode.id }, deletedAt: null },
    attributes: ['id', 'title', 'number'],
    include: { model: EpisodeFile, as: 'files', where: { role: 'source', fileId }, required: true },
  })
  return others.map(other => ({ id: other.id, title: other.title, number: other.number }))
}

async function workOn(episode: Episode, now: Date): Promise<Sound['work']> {
  const { id, finishing } = episode
  const source = fileIn(episode, 'source')
  const subject = finishing === 'working' ? id : source?.measuring === 'waiting' ? source.id : null
  if (!subject) return null
  const kind = subject === id ? 'finish-episode' : 'measure-file'
  const job = await Job.findOne({ where: { subject, kind, state: 'open' }, order: [['createdAt', 'DESC']] })
  const progress = job?.progress ?? 0
  const spentMs = job?.begunAt ? +now - +job.begunAt : 0
  return {
    kind: subject === id ? 'finishing' : 'measuring',
    progress,
    secondsLeft: progress > 0.05 && spentMs > 2000 ? Math.ceil(((spentMs / progress) * (1 - progress)) / 1000) : null,
  }
}
