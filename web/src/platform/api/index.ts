import type { Calendar, CalendarAddress } from '@contract/calendar'
import type {
  AgeNumbers,
  EpisodeNumbers,
  EpisodeComparison,
  ListenerList,
  ListenerQuery,
  NumbersFilter,
  ShowNumbers,
} from '@contract/numbers'
import type { DirectoryList, NewOwnListing } from '@contract/directories'
import type { TranscriptDraft } from '@contract/drafts'
import type {
  Episode,
  EpisodeChange,
  NewEpisode,
  EpisodePage,
  EpisodesNear,
  ListQuery,
  Redating,
  Release,
  Retirement,
  Vocabulary,
  SavedText,
} from '@contract/episodes'
import type { Aside, History, PastState, PastText } from '@contract/history'
import type { FeedCheck, FeedChecked, FeedOverview, FeedComparisonView } from '@contract/feed'
import type { MailChange, MailState } from '@contract/mail'
import type { OrderFindings } from '@contract/order'
import type { Preview } from '@contract/preview'
import type { Credentials, Session } from '@contract/session'
import type { Shelf, ShelfQuery } from '@contract/shelf'
import type { SlotList } from '@contract/rhythm'
import type {
  NewAddress,
  NewShow,
  Picture,
  PictureSubject,
  Show,
  ShowChange,
  ShowListQuery,
  ShowPage,
} from '@contract/shows'
import type { Sound } from '@contract/sound'
import type { ListenerList as FeedListeners, NewListeners } from '@contract/listeners'
import type { Comment, CommentChange, CommentList, CommentListQuery } from '@contract/comments'
import type { ThemeStep, ShowTheme, TriedTheme } from '@contract/siteThemes'
import type { SharedEpisodes } from '@contract/sharing'
import type { CustomDomain, WantedDomain } from '@contract/customDomains'
import type { NewOwnPage, OwnPageChange, OwnPageList } from '@contract/ownPages'
import type { NewStrand, StrandChange, StrandList } from '@contract/strands'
import type { TablePage, TableQuery } from '@contract/table'
import type {
  BulkEditRequest,
  BulkEditResult,
  BulkEditQuery,
  BulkEditHistory,
  BulkEditPreview,
  BulkEditUndo,
  BulkEditUndone,
} from '@contract/bulkEdits'
import type { ClockMove, ClockReading } from '@contract/clockOffset'
import type {
  BroughtTranscript,
  CueChange,
  Transcript,
  TranscriptFacts,
  TranscriptSummary,
} from '@contract/transcripts'
import { type Pyramid, readPyramid } from '@core/audio/pyramid'
import type { Recipe } from '@core/audio/recipe'
import type { Crop } from '@core/show/artwork'
import { call } from './client'

export type Step = 'unschedule' | 'send-changes' | 'drop-end' | 'restore'

/** The versions of an episode and of its sound that a window has seen. */
export interface Seen {
  version: number
  soundVersion: number
}

/** Settings as an address carries them; what is not set is left out. */
function queryOf(settings: Readonly<Record<string, string | number | undefined>>): string {
  const set = Object.entries(settings).filter(([, value]) => value !== undefined && value !== '')
  return set.length > 0 ? `?${new URLSearchParams(set.map(([name, value]) => [name, String(value)])).toString()}` : ''
}

/** The API, a function for each thing it does. */
export const api = {
  session: () => call<Session>('GET', '/session'),
  signIn: (credentials: Credentials) => call<void>('POST', '/session', credentials),
  moveClock: (move: ClockMove) => call<ClockReading>('POST', '/clock', move),
  mail: () => call<MailState>('GET', '/mail'),
  chooseMail: (change: MailChange) => call<MailState>('PUT', '/mail', change),
  calendar: (query: { from: string; to: string; shows: readonly string[] }) =>
    call<Calendar>('GET', `/calendar${queryOf({ ...query, shows: query.shows.join(',') })}`),
  calendarAddress: () => call<CalendarAddress>('GET', '/calendar-address'),
  renewCalendarAddress: () => call<CalendarAddress>('POST', '/calendar-address', {}),
  dropCalendarAddress: () => call<CalendarAddress>('DELETE', '/calendar-address'),
  signOut: () => call<void>('DELETE', '/session'),
  createFirstAccount: (credentials: Credentials) => call<void>('POST', '/accounts', credentials),

  shows: (query: Partial<ShowListQuery> = {}) => call<ShowPage>('GET', `/shows${queryOf(query)}`),
  showAt: (slug: string) => call<Show>('GET', `/shows/at/${encodeURIComponent(slug)}`),
  slots: (showId: string, count: number) => call<SlotList>('GET', `/shows/${showId}/slots${queryOf({ count })}`),
  order: (showId: string) => call<OrderFindings>('GET', `/shows/${showId}/order`),
  numbers: (showId: string, filter: NumbersFilter) =>
    call<ShowNumbers>('GET', `/shows/${showId}/numbers${queryOf(filter)}`),
  /** Where a file with the same is. */
  numbersFile: (showId: string, form: 'csv' | 'json', filter: NumbersFilter): string =>
    `/api/v1/shows/${showId}/numbers/export${queryOf({ form, ...filter })}`,
  newestNumbers: (showId: string) => call<{ numbers: AgeNumbers | null }>('GET', `/shows/${showId}/numbers/newest`),
  episodeNumbers: (episodeId: string) => call<EpisodeNumbers>('GET', `/episodes/${episodeId}/numbers`),
  compareEpisodes: (showId: string, episodes: readonly string[]) =>
    call<EpisodeComparison>('GET', `/shows/${showId}/numbers/ages${queryOf({ episodes: episodes.join(',') })}`),
  listenersBehind: (showId: string, query: Partial<ListenerQuery>) =>
    call<ListenerList>('GET', `/shows/${showId}/numbers/listeners${queryOf(query)}`),
  addMark: (showId: string, mark: { day: string; words: string }) =>
    call<Pick<ShowNumbers, 'marks'>>('POST', `/shows/${showId}/numbers/marks`, mark),
  removeMark: (id: string) => call<Pick<ShowNumbers, 'marks'>>('DELETE', `/marks/${id}`),
  feed: (showId: string) => call<FeedOverview>('GET', `/shows/${showId}/feed`),
  feedState: (showId: string, id: string) => call<FeedComparisonView>('GET', `/shows/${showId}/feed/states/${id}`),
  feedOutlook: (showId: string, change: ShowChange) =>
    call<FeedComparisonView>('POST', `/shows/${showId}/feed/outlook`, change),
  directories: (showId: string) => call<DirectoryList>('GET', `/shows/${showId}/directories`),
  handIn: (showId: string, directory: string) =>
    call<DirectoryList>('POST', `/shows/${showId}/directories/${directory}`, {}),
  confirmListing: (showId: string, directory: string, code: string) =>
    call<DirectoryList>('POST', `/shows/${showId}/directories/${directory}/code`, { code }),
  addListing: (showId: string, listing: NewOwnListing) =>
    call<DirectoryList>('POST', `/shows/${showId}/listings`, listing),
  dropListing: (showId: string, id: string) => call<DirectoryList>('DELETE', `/shows/${showId}/listings/${id}`),
  feedChange: (episodeId: string) => call<FeedComparisonView>('GET', `/episodes/${episodeId}/feed-change`),
  moveShow: (id: string, address: NewAddress) => call<Show>('POST', `/shows/${id}/address`, address),
  listeners: (showId: string) => call<FeedListeners>('GET', `/shows/${showId}/listeners`),
  addListeners: (showId: string, wanted: NewListeners) =>
    call<FeedListeners>('POST', `/shows/${showId}/listeners`, wanted),
  renewListener: (id: string) => call<FeedListeners>('POST', `/listeners/${id}/renewal`),
  withdrawListener: (id: string) => call<FeedListeners>('POST', `/listeners/${id}/withdrawal`),
  restoreListener: (id: string) => call<FeedListeners>('POST', `/listeners/${id}/restoration`),
  comments: (showId: string, query: CommentListQuery) =>
    call<CommentList>('GET', `/shows/${showId}/comments${queryOf(query)}`),
  openComments: (showId: string, takesComments: boolean) =>
    call<CommentList>('PUT', `/shows/${showId}/comments`, { takesComments }),
  changeComment: (id: string, change: CommentChange) => call<Comment>('PATCH', `/comments/${id}`, change),

  sharing: (showId: string, query: { first?: string | undefined }) =>
    call<SharedEpisodes>('GET', `/shows/${showId}/sharing${queryOf(query)}`),

  customDomain: (showId: string) => call<CustomDomain>('GET', `/shows/${showId}/custom-domain`),
  claimCustomDomain: (showId: string, wanted: WantedDomain) =>
    call<CustomDomain>('PUT', `/shows/${showId}/custom-domain`, wanted),
  proveCustomDomain: (showId: string) => call<CustomDomain>('POST', `/shows/${showId}/custom-domain/prove`),
  leaveCustomDomain: (showId: string) => call<CustomDomain>('DELETE', `/shows/${showId}/custom-domain`),

  ownPages: (showId: string) => call<OwnPageList>('GET', `/shows/${showId}/pages`),
  createOwnPage: (showId: string, page: NewOwnPage) => call<OwnPageList>('POST', `/shows/${showId}/pages`, page),
  changeOwnPage: (id: string, page: OwnPageChange) => call<OwnPageList>('PUT', `/pages/${id}`, page),
  removeOwnPage: (id: string) => call<OwnPageList>('DELETE', `/pages/${id}`),

  theme: (showId: string) => call<ShowTheme>('GET', `/shows/${showId}/theme`),
  tryTheme: (showId: string, tried: TriedTheme) => call<ShowTheme>('PUT', `/shows/${showId}/theme`, tried),
  stepTheme: (showId: string, step: 'take-over' | 'put-back' | 'leave', from: ThemeStep) =>
    call<ShowTheme>('POST', `/shows/${showId}/theme/${step}`, from),

  strands: (showId: string) => call<StrandList>('GET', `/shows/${showId}/strands`),
  createStrand: (showId: string, strand: NewStrand) => call<StrandList>('POST', `/shows/${showId}/strands`, strand),
  changeStrand: (id: string, strand: StrandChange) => call<StrandList>('PUT', `/strands/${id}`, strand),
  chooseStrand: (id: string, episodeIds: string[]) =>
    call<StrandList>('PUT', `/strands/${id}/episodes`, { episodeIds }),
  removeStrand: (id: string) => call<StrandList>('DELETE', `/strands/${id}`),
  checkFeed: (wanted: FeedCheck) => call<FeedChecked>('POST', '/feed-checks', wanted),
  createShow: (show: NewShow) => call<Show>('POST', '/shows', show),
  changeShow: (id: string, change: ShowChange) => call<Show>('PATCH', `/shows/${id}`, change),
  addArtwork: (picture: Blob, crop?: Crop) =>
    call<Picture>(
      'POST',
      `/artwork${crop ? `?left=${crop.left}&top=${crop.top}&sidePx=${crop.sidePx}` : ''}`,
      picture,
      { 'content-type': 'application/octet-stream' },
    ),

  addSmallPicture: (picture: Blob, of: PictureSubject) =>
    call<Picture>('POST', `/pictures?of=${of}`, picture, { 'content-type': 'application/octet-stream' }),

  episodes: (showId: string, query: Partial<ListQuery>) =>
    call<EpisodePage>('GET', `/shows/${showId}/episodes${queryOf(query)}`),
  episodesNear: (showId: string) => call<EpisodesNear>('GET', `/shows/${showId}/episodes/near`),
  table: (showId: string, query: Partial<TableQuery>) =>
    call<TablePage>('GET', `/shows/${showId}/episodes/table${queryOf(query)}`),
  previewBulkEdit: (showId: string, query: BulkEditQuery) =>
    call<BulkEditPreview>('POST', `/shows/${showId}/bulk-edits/preview`, query),
  bulkEdit: (showId: string, change: BulkEditRequest) =>
    call<BulkEditResult>('POST', `/shows/${showId}/bulk-edits`, change),
  bulkEdits: (showId: string) => call<BulkEditHistory>('GET', `/shows/${showId}/bulk-edits`),
  undoBulkEdit: (showId: string, id: string, what: BulkEditUndo) =>
    call<BulkEditUndone>('POST', `/shows/${showId}/bulk-edits/${id}/undo`, what),
  vocabulary: (showId: string) => call<Vocabulary>('GET', `/shows/${showId}/vocabulary`),
  createEpisode: (showId: string, begun: NewEpisode = {}) => call<Episode>('POST', `/shows/${showId}/episodes`, begun),
  sound: (id: string) => call<Sound>('GET', `/episodes/${id}/sound`),
  episode: (id: string) => call<Episode>('GET', `/episodes/${id}`),
  changeEpisode: (id: string, change: EpisodeChange) => call<SavedText>('PATCH', `/episodes/${id}`, change),
  history: (id: string) => call<History>('GET', `/episodes/${id}/history`),
  pastText: (id: string, stateId: string) => call<PastText>('GET', `/episodes/${id}/history/${stateId}`),
  preview: (id: string) => call<Preview>('GET', `/episodes/${id}/preview`),
  keepAside: (id: string, aside: Aside) => call<PastState>('POST', `/episodes/${id}/history/aside`, aside),
  transcripts: (id: string) =>
    call<{ transcripts: TranscriptSummary[] }>('GET', `/episodes/${id}/transcripts`).then(
      ({ transcripts }) => transcripts,
    ),
  draft: (id: string) =>
    call<{ draft: TranscriptDraft | null }>('GET', `/episodes/${id}/draft`).then(({ draft }) => draft),
  askForDraft: (id: string, language: string) =>
    call<{ draft: TranscriptDraft }>('POST', `/episodes/${id}/draft`, { language }).then(({ draft }) => draft),
  stopDraft: (id: string) => call<void>('DELETE', `/episodes/${id}/draft`),
  transcript: (id: string) => call<Transcript>('GET', `/transcripts/${id}`),
  bringTranscript: (episodeId: string, language: string, file: Blob, name: string) =>
    call<BroughtTranscript>('POST', `/episodes/${episodeId}/transcripts${queryOf({ language, name })}`, file, {
      'content-type': 'application/octet-stream',
    }),
  changeCues: (id: string, change: CueChange) => call<Transcript>('PATCH', `/transcripts/${id}/cues`, change),
  changeTranscript: (id: string, facts: TranscriptFacts) => call<Transcript>('PATCH', `/transcripts/${id}`, facts),
  alignTranscript: (id: string) => call<Transcript>('POST', `/transcripts/${id}/align`, {}),
  transcriptBefore: (id: string) => call<Transcript>('POST', `/transcripts/${id}/before`, {}),
  removeTranscript: (id: string) => call<void>('DELETE', `/transcripts/${id}`),
  restoreTranscript: (id: string) => call<Transcript>('POST', `/transcripts/${id}/restoration`, {}),
  removeEpisode: (id: string) => call<void>('DELETE', `/episodes/${id}`),
  restoreEpisode: (id: string) => call<Episode>('POST', `/episodes/${id}/restoration`, {}),
  release: (id: string, release: Release) => call<Episode>('POST', `/episodes/${id}/release`, release),
  redate: (id: string, redating: Redating) => call<Episode>('POST', `/episodes/${id}/redate`, redating),
  retire: (id: string, retirement: Retirement) => call<Episode>('POST', `/episodes/${id}/retire`, retirement),
  setRecipe: (id: string, version: number, recipe: Recipe | null) =>
    call<Sound>('PUT', `/episodes/${id}/recipe`, { version, recipe }),
  finish: (id: string, version: number, recipe: Recipe) =>
    call<Sound>('POST', `/episodes/${id}/finish`, { version, recipe }),
  takeMix: (id: string, seen: { version: number; soundVersion: number }) =>
    call<Sound>('PUT', `/episodes/${id}/mix/taken`, seen),
  cancelFinish: (id: string, version: number) => call<Sound>('POST', `/episodes/${id}/cancel-finish`, { version }),
  step: (id: string, step: Step, seen: Pick<Seen, 'version'> & Partial<Seen>) =>
    call<Episode>('POST', `/episodes/${id}/${step}`, seen),

  shelf: (showId: string, query: Partial<ShelfQuery> = {}) =>
    call<Shelf>('GET', `/shows/${showId}/files${queryOf(query)}`),
  removeFile: (showId: string, fileId: string) => call<void>('DELETE', `/shows/${showId}/files/${fileId}`),
  useFile: (episodeId: string, fileId: string) => call<Episode>('PUT', `/episodes/${episodeId}/source`, { fileId }),

  useAddress: (episodeId: string, address: string) =>
    call<Episode>('PUT', `/episodes/${episodeId}/address`, { address }),

  /** A file's waveform; null while it is not measured. */
  async waveform(address: string): Promise<Pyramid | null> {
    const response = await fetch(address)
    return response.ok ? readPyramid(new Uint8Array(await response.arrayBuffer())) : null
  },
}
