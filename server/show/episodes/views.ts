import type { Episode as EpisodeView, EpisodeSummary, SavedText } from '@contract/episodes'
import type { Upload as UploadView } from '@contract/sound'
import { textOf } from '@core/episode/fields'
import type { ReleasedTranscript } from '@core/episode/snapshot'
import type { FeedTranscript } from '@core/feed/model'
import { type TranscriptFormat, transcriptTypes } from '@core/transcript/formats'
import type { Upload } from '../../media/files/upload'
import { deliveredName } from '../../platform/storage/names'
import { studioPictureAddress } from '../../media/pictures/names'
import { addressesOf } from '../shows/service'
import type { Episode } from './models'
import { hindrancesNow } from './readiness'
import { deliveredRole, fileIn } from './roles'

/** One line of a list, out of a row that need not have its notes. The episode comes with its files. */
export function summaryOf(episode: Episode, arriving: string | null): EpisodeSummary {
  const source = fileIn(episode, 'source')
  const delivered = deliveredRole(episode)
  return {
    id: episode.id,
    version: episode.version,
    title: episode.title,
    number: episode.number,
    status: episode.status,
    releaseAt: episode.releaseAt?.toISOString() ?? null,
    durationMs: (delivered ? fileIn(episode, delivered) : source)?.durationMs ?? null,
    hasAudio: source !== null,
    arriving,
    hindrances: hindrancesNow(episode),
    changedSinceRelease: episode.status === 'released' && Boolean(episode.isChanged),
    updatedAt: episode.updatedAt.toISOString(),
  }
}

/** What its row alone tells of an episode whose text was saved. */
export const savedTextOf = (episode: Episode): SavedText => ({
  id: episode.id,
  version: episode.version,
  title: episode.title,
  number: episode.number,
  text: textOf(episode),
  artworkAddress: episode.artworkId && studioPictureAddress({ id: episode.artworkId }),
  changedSinceRelease: episode.status === 'released' && Boolean(episode.isChanged),
  updatedAt: episode.updatedAt.toISOString(),
})

/** The whole of an episode but its sound, as the desk needs it. `upload` is its newest upload, where that is not done. */
export function episodeOf(
  episode: Episode,
  publicUrl: string,
  upload: Upload | null,
  rest: Pick<EpisodeView, 'written' | 'numbering' | 'badLinks' | 'isPrivate'>,
): EpisodeView {
  const { show } = episode
  const released = fileIn(episode, 'released')
  return {
    ...summaryOf(episode, upload && isUnderWay(upload) ? upload.fileName : null),
    ...savedTextOf(episode),
    showId: episode.showId,
    guid: episode.guid,
    releaseZone: episode.releaseZone,
    retireAt: episode.retireAt?.toISOString() ?? null,
    retireZone: episode.retireZone,
    keepsPage: Boolean(episode.keepsPage),
    pageAddress: episode.slug && `${addressesOf(publicUrl, show!).pageAddress}/${episode.slug}`,
    enclosureAddress:
      episode.status === 'released' && released ? enclosureAddress(publicUrl, episode.id, released) : null,
    upload: upload && uploadOf(upload),
    ...rest,
  }
}

export const enclosureAddress = (
  publicUrl: string,
  episodeId: string,
  file: { fingerprint: string; type: string; address: string | null },
): string => file.address ?? `${publicUrl}/media/${episodeId}/${deliveredName(file)}`

/** The address of an episode's file of chapters, by that of its page. */
export const chaptersAddress = (pageAddress: string): string => `${pageAddress}/chapters.json`

/** The address of a soundbite's own file, by that of its episode's page. */
export const soundbiteAddress = (pageAddress: string, id: string): string => `${pageAddress}/soundbites/${id}.mp3`

/** Every file of an episode's transcripts, by the address of its page. */
export const transcriptFiles = (
  pageAddress: string,
  transcripts: readonly ReleasedTranscript[],
): (FeedTranscript & { format: TranscriptFormat })[] =>
  transcripts.flatMap(({ language, formats }) =>
    formats.map(format => ({
      format,
      address: `${pageAddress}/transcript.${language}.${format}`,
      type: transcriptTypes[format],
      language,
      isCaptions: format === 'vtt' || format === 'srt',
    })),
  )

const isUnderWay = ({ state }: Upload): boolean => state === 'receiving' || state === 'reading'

export const uploadOf = ({ id, fileName, bytes, state, refusal }: Upload): UploadView => ({
  id,
  fileName,
  bytes: Number(bytes),
  state,
  refusal,
})
