import type { Episode, EpisodeChange, EpisodeSummary, Release } from '@contract/episodes'
import type { Credentials, Session } from '@contract/session'
import type { Shelf } from '@contract/shelf'
import type { NewShow, Picture, Show, ShowChange } from '@contract/shows'
import { type Pyramid, readPyramid } from '@core/audio/pyramid'
import type { Recipe } from '@core/audio/recipe'
import type { Crop } from '@core/show/artwork'
import { call, callTagged } from './client'

export type Step = 'unschedule' | 'send-changes' | 'retire' | 'restore'

/** The API, a function for each thing it does. */
export const api = {
  session: () => call<Session>('GET', '/session'),
  signIn: (credentials: Credentials) => call<void>('POST', '/session', credentials),
  signOut: () => call<void>('DELETE', '/session'),
  createFirstAccount: (credentials: Credentials) => call<void>('POST', '/accounts', credentials),

  shows: () => call<Show[]>('GET', '/shows'),
  createShow: (show: NewShow) => call<Show>('POST', '/shows', show),
  changeShow: (id: string, change: ShowChange) => call<Show>('PATCH', `/shows/${id}`, change),
  addArtwork: (picture: Blob, crop?: Crop) =>
    call<Picture>('POST', `/artwork${crop ? `?left=${crop.left}&top=${crop.top}&sidePx=${crop.sidePx}` : ''}`, picture, { 'content-type': 'application/octet-stream' }),

  episodes: (showId: string, tag: string | null) => callTagged<EpisodeSummary[]>(`/shows/${showId}/episodes`, tag),
  createEpisode: (showId: string, title?: string) => call<Episode>('POST', `/shows/${showId}/episodes`, { title }),
  episode: (id: string) => call<Episode>('GET', `/episodes/${id}`),
  changeEpisode: (id: string, change: EpisodeChange) => call<Episode>('PATCH', `/episodes/${id}`, change),
  removeEpisode: (id: string) => call<void>('DELETE', `/episodes/${id}`),
  restoreEpisode: (id: string) => call<Episode>('POST', `/episodes/${id}/restoration`, {}),
  release: (id: string, release: Release) => call<Episode>('POST', `/episodes/${id}/release`, release),
  setRecipe: (id: string, version: number, recipe: Recipe | null) => call<Episode>('PUT', `/episodes/${id}/recipe`, { version, recipe }),
  finish: (id: string, version: number, recipe: Recipe) => call<Episode>('POST', `/episodes/${id}/finish`, { version, recipe }),
  cancelFinish: (id: string, version: number) => call<Episode>('POST', `/episodes/${id}/cancel-finish`, { version }),
  step: (id: string, step: Step, version: number) => call<Episode>('POST', `/episodes/${id}/${step}`, { version }),

  shelf: (showId: string) => call<Shelf>('GET', `/shows/${showId}/files`),
  removeFile: (showId: string, fileId: string) => call<void>('DELETE', `/shows/${showId}/files/${fileId}`),
  useFile: (episodeId: string, fileId: string) => call<Episode>('PUT', `/episodes/${episodeId}/source`, { fileId }),

  useAddress: (episodeId: string, address: string) => call<Episode>('PUT', `/episodes/${episodeId}/address`, { address }),

  /** A file's waveform; null while it is not measured. */
  async waveform(address: string): Promise<Pyramid | null> {
    const response = await fetch(address)
    return response.ok ? readPyramid(new Uint8Array(await response.arrayBuffer())) : null
  },
}
