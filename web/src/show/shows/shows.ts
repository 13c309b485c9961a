import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { EpisodePage, EpisodesNear, EpisodeSummary } from '@contract/episodes'
import type { OrderFindings } from '@contract/order'
import type { SlotList } from '@contract/rhythm'
import type { NewAddress, NewShow, Picture, PictureSubject, Show, ShowChange, ShowPage } from '@contract/shows'
import type { Crop } from '@core/show/artwork'
import { type Status, statuses } from '@core/release/status'
import { api } from '../../platform/api'

/** An episode as a window has seen it. */
type Seen = Pick<EpisodeSummary, 'id' | 'version'>

/** The show that is open with its episodes near now, and the list of the others. */
export const useShows = defineStore('shows', () => {
  /** The first shows of the list, or those that were looked for. */
  const list = shallowRef<ShowPage | null>(null)
  const open = ref<Show | null>(null)
  const near = shallowRef<EpisodesNear | null>(null)
  let turns = 0

  async function loadList(find?: string): Promise<ShowPage> {
    list.value = await api.shows({ find })
    return list.value
  }

  const bySlug = (slug: string): Show | null => (open.value?.slug === slug ? open.value : null)

  /** Opens the show at an address, which can be one that it had before, and stays that of this window; throws ApiError where there is none. */
  async function openAt(slug: string): Promise<void> {
    if (open.value?.slug !== slug) {
      near.value = null
      open.value = { ...(await api.showAt(slug)), slug }
    }
    await loadEpisodes()
  }

  async function refresh(): Promise<void> {
    if (!open.value) return
    const { slug } = open.value
    const [show] = await Promise.all([api.showAt(slug), loadList()])
    if (open.value.slug === slug) open.value = { ...show, slug }
  }

  async function create(show: NewShow): Promise<Show> {
    const made = await api.createShow(show)
    await loadList().catch(() => undefined)
    return made
  }

  async function change(id: string, facts: ShowChange): Promise<Show> {
    const show = await api.changeShow(id, facts)
    open.value = { ...show, slug: open.value?.slug ?? show.slug }
    return open.value
  }

  /** Gives a show another address part; answers it. This window stays where it is until it goes there. */
  const move = async (id: string, address: NewAddress): Promise<string> => (await api.moveShow(id, address)).slug

  /** Brings artwork, cut to a square where a cut is given; throws ApiError with the cut that is offered. */
  const addArtwork = (picture: Blob, crop?: Crop): Promise<Picture> => api.addArtwork(picture, crop)

  const addSmallPicture = (picture: Blob, of: PictureSubject): Promise<Picture> => api.addSmallPicture(picture, of)

  /** The next slots of the open show's rhythm on which nothing goes out yet. */
  const nextSlots = async (count: number): Promise<SlotList['slots']> =>
    open.value?.rhythm ? (await api.slots(open.value.id, count)).slots : []

  /** What stands out of order in the open show. */
  const order = async (): Promise<OrderFindings | null> => (open.value ? api.order(open.value.id) : null)

  /** Has an episode of the open show go out at a wall time in its zone, where it is still as it was seen. */
  async function schedule({ id, version }: Seen, local: string): Promise<EpisodeSummary> {
    const moved = await api.release(id, { version, when: { kind: 'at', local, zone: open.value!.zone } })
    await loadEpisodes()
    return moved
  }
  /** Takes the moment of an episode away. */
  async function unschedule({ id, version }: Seen): Promise<void> {
    await api.step(id, 'unschedule', { version })
    await loadEpisodes()
  }

  /** Begins a draft; answers its id. */
  async function beginEpisode(): Promise<string> {
    return (await api.createEpisode(open.value!.id)).id
  }

  /** The episodes near now, and as many behind them as were looked at before. */
  async function loadEpisodes(): Promise<void> {
    const showId = open.value?.id
    if (!showId) return
    const turn = ++turns
    const loaded = await api.episodesNear(showId)
    for (const status of statuses) {
      const wanted = near.value?.[status].episodes.length ?? 0
      while (loaded[status].after !== null && loaded[status].episodes.length < wanted)
        loaded[status] = await withNext(showId, status, loaded[status])
    }
    // Of answers that overtake each other the one asked for last is the newest.
    if (turn === turns && open.value?.id === showId) near.value = loaded
  }

  /** Loads the next episodes of a status behind those that are here. */
  async function loadMore(status: Status): Promise<void> {
    const [showId, known] = [open.value?.id, near.value]
    if (!showId || !known) return
    const page = await withNext(showId, status, known[status])
    if (near.value === known) near.value = { ...known, [status]: page }
  }

  /** The first episodes with words in their titles, or with a number; null where that cannot be had now. */
  async function findEpisodes(find: string): Promise<EpisodePage | null> {
    return open.value ? api.episodes(open.value.id, { find }).catch(() => null) : null
  }

  const known = computed(
    () =>
      new Map(
        near.value
          ? [...near.value.changed, ...statuses.flatMap(status => near.value![status].episodes)].map(episode => [
              episode.id,
              episode,
            ])
          : [],
      ),
  )
  /** An episode where it is among those that are here. */
  const episode = (id: string): EpisodeSummary | null => known.value.get(id) ?? null

  return {
    list,
    open,
    near,
    loadList,
    bySlug,
    openAt,
    refresh,
    create,
    change,
    move,
    addArtwork,
    addSmallPicture,
    nextSlots,
    order,
    schedule,
    unschedule,
    beginEpisode,
    loadEpisodes,
    loadMore,
    findEpisodes,
    episode,
  }
})

async function withNext(showId: string, status: Status, { episodes, after }: EpisodePage): Promise<EpisodePage> {
  if (after === null) return { episodes, after, total: episodes.length }
  const next = await api.episodes(showId, { status, after })
  return { ...next, episodes: [...episodes, ...next.episodes] }
}
