import { watch } from 'vue'
import { onNews } from '../../platform/news/news'
import { useSound } from '../../production/sound/sound'
import { useShows } from '../../show/shows/shows'
import { useUploads } from '../../production/uploads/uploads'
import { useDrafting } from '../../words/transcripts/drafting'
import { useTranscript } from '../../words/transcripts/transcript'
import { useDesk } from '../../show/episodes/desk'

/** Keeps the desk as the server has it: what others change, what files become, what has arrived. */
export function useArrivals(id: string): void {
  const desk = useDesk()
  const sounds = useSound()
  const transcript = useTranscript()
  const drafting = useDrafting()
  const shows = useShows()
  const uploads = useUploads()
  const sending = () => uploads.sendings[id]

  const isHeard = (fileId: string): boolean =>
    [sounds.sound?.source, ...(sounds.sound?.parts ?? [])].some(file => file?.id === fileId)

  const refresh = (): Promise<unknown> =>
    Promise.all([desk.refresh(), sounds.refresh(), transcript.load(id), drafting.load(id)])
  onNews(news => news.id === id && news.kind !== 'progress', refresh, 2_000)
  onNews(news => news.kind === 'progress' && (news.id === id || isHeard(news.id)), sounds.refresh, 2_000)
  onNews(
    news => news.kind === 'progress' && news.id === transcript.open?.id,
    () => transcript.load(id),
  )
  onNews(
    news => news.kind === 'progress' && news.id === drafting.draft?.id,
    () => drafting.load(id),
  )
  // What has arrived shows at once.
  watch(
    () => sending()?.state,
    state => {
      if (state === 'sent' || state === 'here') void refresh().catch(() => undefined)
    },
  )
  watch(
    () => [sounds.sound?.source?.id, desk.episode?.upload?.state],
    () => {
      const state = sending()?.state
      const upload = desk.episode?.upload
      if ((state === 'sent' || state === 'here') && (upload === null || upload?.state === 'refused')) uploads.drop(id)
    },
  )
  watch(
    () => [desk.episode?.status, desk.episode?.version, sounds.sound?.version],
    () => void shows.loadEpisodes().catch(() => undefined),
  )
}
