import type { AudioFile as AudioFileView, Episode as EpisodeView, EpisodeSummary, Upload as UploadView } from '@contract/episodes'
import { differingFields, type EpisodeText } from '@core/episode/text'
import type { AudioFile } from '../files/models'
import { deliveredName } from '../media/routes'
import type { Upload } from '../uploads/models'
import type { Episode } from './models'

/** What a person wrote, out of a row. */
export const textOf = ({ title, number, season, kind, notes }: Episode): EpisodeText => ({ title, number, season, kind, notes })

/** One line of the list, out of a row with or without its notes; `notesChanged` where the query compared them. */
export function summaryOf(episode: Episode): EpisodeSummary {
  return {
    id: episode.id,
    title: episode.title,
    number: episode.number,
    standing: episode.standing,
    releaseAt: episode.releaseAt?.toISOString() ?? null,
    durationMs: episode.file?.durationMs ?? null,
    hasAudio: episode.fileId !== null,
    changedSinceRelease: changedSinceRelease(episode),
    updatedAt: episode.updatedAt.toISOString(),
  }
}

/** The whole of an episode as the desk needs it. `upload` is its newest upload, where that is not done. */
export function episodeOf(episode: Episode, publicUrl: string, upload: Upload | null, alsoIn: AudioFileView['alsoIn']): EpisodeView {
  const { show, file, releasedFile } = episode
  return {
    ...summaryOf(episode),
    showId: episode.showId,
    version: episode.version,
    guid: episode.guid,
    text: textOf(episode),
    releaseZone: episode.releaseZone,
    pageAddress: episode.slug && `${publicUrl}/${show!.slug}/${episode.slug}`,
    enclosureAddress: episode.standing === 'released' && releasedFile ? enclosureAddress(publicUrl, episode.id, releasedFile) : null,
    audio: file ? audioOf(file, publicUrl, alsoIn) : null,
    upload: upload && uploadOf(upload),
  }
}

export const enclosureAddress = (publicUrl: string, episodeId: string, file: { sha256: string; type: string }): string =>
  `${publicUrl}/media/${episodeId}/${deliveredName(file)}`

export const uploadOf = ({ id, fileName, bytes, state, refusal }: Upload): UploadView => ({ id, fileName, bytes: Number(bytes), state, refusal })

function changedSinceRelease(episode: Episode): boolean {
  if (episode.standing !== 'released' || !episode.releasedText) return false
  if (episode.fileId !== episode.releasedFileId) return true
  const compared = episode.get('notesChanged') as number | undefined
  const fields = differingFields(textOf(episode), episode.releasedText)
  return compared === undefined ? fields.length > 0 : compared === 1 || fields.some(field => field !== 'notes')
}

function audioOf(file: AudioFile, publicUrl: string, alsoIn: AudioFileView['alsoIn']): AudioFileView {
  const { showId: _show, waveform: _waveform, pictureId, createdAt: _at, bytes, ...facts } = file.get()
  return {
    ...facts,
    bytes: Number(bytes),
    pictureAddress: pictureId && `${publicUrl}/media/artwork/${pictureId}.jpg`,
    playAddress: `/api/v1/files/${file.id}/sound`,
    waveformAddress: `/api/v1/files/${file.id}/waveform`,
    alsoIn,
  }
}
