import { computed, onUnmounted } from 'vue'
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router'
import type { EpisodeField } from '@core/episode/fields'
import { type DeskPart, deskParts, placeOf } from './parts'

/** What can lie over the desk. */
const looks = ['history', 'preview'] as const
export type Look = (typeof looks)[number]

/** Which part of the desk is open and what lies over it: both stand in the address, so that a reload and a link lead there. */
export function useDeskPlaces() {
  const route = useRoute()
  const router = useRouter()
  // Whoever leaves goes where they were going: another address now would take that press back.
  let isLeaving = false
  onBeforeRouteLeave(() => {
    isLeaving = true
  })
  // A page that could not be had leaves the desk where it is.
  const stay = (): void => {
    isLeaving = false
  }
  onUnmounted(router.afterEach(stay))
  onUnmounted(router.onError(stay))
  const go = (query: Record<string, string | undefined>): void => {
    if (!isLeaving) void router.replace({ query: { ...route.query, ...query } })
  }

  const part = computed<DeskPart>({
    get: () => deskParts.find(name => name === route.query.part) ?? 'words',
    set: name => go({ part: name }),
  })
  const look = computed<Look | null>({
    get: () => looks.find(name => name === route.query.look) ?? null,
    set: name => go({ look: name ?? undefined }),
  })

  /** Opens the part where something has just become another. */
  function goTo(fields: readonly EpisodeField[]): void {
    const places = fields.map(placeOf)
    const [place] = places
    if (place && place !== 'head' && !places.includes(part.value)) part.value = place
  }

  return { part, look, goTo }
}
