import type { Episode as EpisodeView, EpisodeSummary, Upload as UploadView } from '@contract/episodes'
import type { Sound } from '@contract/sound'
import { differingFields, type EpisodeText } from '@core/episode/text'
import { deliveredName } from '../media/names'
import type { Upload } from '../uploads/models'
import { deliveredFileId, type Episode } from './models'

/** What a person wrote, out of a row. */
export const textOf = ({ title, number, season, kind, notes }: Episode): EpisodeText => ({ title, number, season, kind, notes })

/** One line of the list, out of a row with or without its notes; `notesChanged` where the query compared them. */
export function summaryOf(episode: Episode, arriving: string | null): EpisodeSummary {
  return {
    id: episode.id,
    title: episode.title,
    number: episode.number,
    standing: episode.standing,
    releaseAt: episode.releaseAt?.toISOString() ?? null,
    durationMs: (episode.recipe && episode.finishing === 'done' ? episode.finishedFile : episode.file)?.durationMs ?? null,
    hasAudio: episode.fileId !== null,
    arriving,
    awaitsFinish: episode.fileId !== null && deliveredFileId(episode) === null,
    changedSinceRelease: changedSinceRelease(episode),
    updatedAt: episode.updatedAt.toISOString(),
  }
}

/** The whole of an episode as the desk needs it. `upload` is its newest upload, where that is not done. */
export function episodeOf(episode: Episode, publicUrl: string, upload: Upload | null, sound: Sound): EpisodeView {
  const { show, releasedFile } = episode
  return {
    ...summaryOf(episode, upload && isUnderWay(upload) ? upload.fileName : null),
    showId: episode.showId,
    version: episode.version,
    guid: episode.guid,
    text: textOf(episode),
    releaseZone: episode.releaseZone,
    pageAddress: episode.slug && `${publicUrl}/${show!.slug}/${episode.slug}`,
    enclosureAddress: episode.standing === 'released' && releasedFile ? enclosureAddress(publicUrl, episode.id, releasedFile) : null,
    sound,
    upload: upload && uploadOf(upload),
  }
}

export const enclosureAddress = (publicUrl: string, episodeId: string, file: { sha256: string; type: string; address: string | null }): string =>
  file.address ?? `${publicUrl}/media/${episodeId}/${deliveredName(file)}`

const isUnderWay = ({ state }: Upload): boolean => state === 'receiving' || state === 'reading'

export const uploadOf = ({ id, fileName, bytes, state, refusal }: Upload): UploadView => ({ id, fileName, bytes: Number(bytes), state, refusal })

function changedSinceRelease(episode: Episode): boolean {
  if (episode.standing !== 'released' || !episode.releasedText) return false
  if (deliveredFileId(episode) !== episode.releasedFileId) return true
  const compared = episode.get('notesChanged') as number | undefined
  const fields = differingFields(textOf(episode), episode.releasedText)
  return compared === undefined ? fields.length > 0 : compared === 1 || fields.some(field => field !== 'notes')
}
