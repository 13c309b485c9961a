import { createRouter, createWebHistory, type Router, type RouteRecordRaw } from 'vue-router'
import type { Place } from '../platform/parts/places'
import LostPage from './frame/LostPage.vue'
import { places } from './frame/places'
import { useSession } from '../people/account/session'
import { useShows } from '../show/shows/shows'

// Each page is loaded when it is first opened.
const AllEpisodesPage = () => import('../release/table/AllEpisodesPage.vue')
const AppFrame = () => import('./frame/AppFrame.vue')
const CalendarPage = () => import('../release/calendar/CalendarPage.vue')
const CommentsPage = () => import('../site/comments/CommentsPage.vue')
const DeskPage = () => import('./desk/DeskPage.vue')
const DirectoriesPage = () => import('../feed/directories/DirectoriesPage.vue')
const FeedCheckPage = () => import('../feed/feeds/FeedCheckPage.vue')
const FeedFactsPage = () => import('../feed/feeds/FeedFactsPage.vue')
const FeedPage = () => import('../feed/feeds/FeedPage.vue')
const HabitsPage = () => import('./show/HabitsPage.vue')
const RhythmPage = () => import('../release/rhythm/RhythmPage.vue')
const ShelfPage = () => import('../production/shelf/ShelfPage.vue')
const ShowFormPage = () => import('./show/ShowFormPage.vue')
const ShowPage = () => import('./show/ShowPage.vue')
const YouPage = () => import('../release/mail/YouPage.vue')
const CustomDomainPage = () => import('../site/customDomains/CustomDomainPage.vue')
const ThemePage = () => import('../site/themes/ThemePage.vue')
const NumbersPage = () => import('../numbers/figures/NumbersPage.vue')
const ComparePage = () => import('../numbers/figures/ComparePage.vue')
const FetchesPage = () => import('../numbers/figures/FetchesPage.vue')
const OwnPagesPage = () => import('../site/ownPages/OwnPagesPage.vue')
const PrivateFeedsPage = () => import('../feed/listeners/PrivateFeedsPage.vue')
const StrandsPage = () => import('../show/strands/StrandsPage.vue')
const SharePage = () => import('../site/sharing/SharePage.vue')
const SignInPage = () => import('../people/account/SignInPage.vue')

const pageOf = (place: Place, name: string, path: string, component: () => Promise<unknown>): RouteRecordRaw => ({
  path,
  name,
  component,
  props: true,
  meta: { place },
})

/** The addresses of the studio. Everything but the sign-in needs an account; the first show is made first. */
export function createStudioRouter(): Router {
  const router = createRouter({
    history: createWebHistory('/studio/'),
    routes: [
      { path: '/', name: 'home', component: LostPage, beforeEnter: home },
      { path: '/sign-in', name: 'sign-in', component: SignInPage },
      { path: '/new-show', name: 'new-show', component: ShowFormPage },
      {
        path: '/:show',
        component: AppFrame,
        props: true,
        children: [
          pageOf(places.show, 'show', '', ShowPage),
          pageOf(places.episodes, 'episodes', 'episodes', AllEpisodesPage),
          pageOf(places.calendar, 'calendar', 'calendar', CalendarPage),
          pageOf(places.shelf, 'shelf', 'shelf', ShelfPage),
          pageOf(places.feed, 'feed', 'feed', FeedPage),
          pageOf(places.feed, 'directories', 'feed/directories', DirectoriesPage),
          pageOf(places.feed, 'private-feeds', 'feed/private', PrivateFeedsPage),
          pageOf(places.feed, 'strands', 'feed/strands', StrandsPage),
          pageOf(places.feed, 'feed-check', 'feed/check', FeedCheckPage),
          pageOf(places.site, 'site', 'site', ThemePage),
          pageOf(places.site, 'site-share', 'site/share', SharePage),
          pageOf(places.site, 'site-pages', 'site/pages', OwnPagesPage),
          pageOf(places.site, 'site-comments', 'site/comments', CommentsPage),
          pageOf(places.site, 'site-host', 'site/host', CustomDomainPage),
          pageOf(places.numbers, 'numbers', 'numbers', NumbersPage),
          pageOf(places.numbers, 'numbers-compare', 'numbers/compare', ComparePage),
          pageOf(places.numbers, 'numbers-lines', 'numbers/fetches', FetchesPage),
          pageOf(places.settings, 'facts', 'facts', ShowFormPage),
          pageOf(places.settings, 'habits', 'habits', HabitsPage),
          pageOf(places.settings, 'rhythm', 'rhythm', RhythmPage),
          pageOf(places.settings, 'feed-facts', 'feed/facts', FeedFactsPage),
          { path: 'you', name: 'you', component: YouPage, props: true },
          pageOf(places.episodes, 'desk', 'episodes/:id', DeskPage),
        ],
      },
      { path: '/:lost(.*)*', name: 'lost', component: LostPage },
    ],
  })

  router.beforeEach(async to => {
    const sessions = useSession()
    if (!sessions.session) await sessions.load().catch(() => undefined)
    if (to.name !== 'sign-in' && !sessions.session?.account) return { name: 'sign-in', query: { then: to.fullPath } }
    if (to.name === 'sign-in' && sessions.session?.account) return { name: 'home' }
    return true
  })
  return router
}

async function home() {
  const [first] = (await useShows().loadList()).shows
  return first ? { name: 'show', params: { show: first.slug } } : { name: 'new-show' }
}
