import { createRouter, createWebHistory, type Router } from 'vue-router'
import LostPage from './frame/LostPage.vue'
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
const OwnPagesPage = () => import('../site/ownPages/OwnPagesPage.vue')
const PrivateFeedsPage = () => import('../feed/listeners/PrivateFeedsPage.vue')
const StrandsPage = () => import('../show/strands/StrandsPage.vue')
const SharePage = () => import('../site/sharing/SharePage.vue')
const SignInPage = () => import('../people/account/SignInPage.vue')

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
          { path: '', name: 'show', component: ShowPage, props: true },
          { path: 'episodes', name: 'episodes', component: AllEpisodesPage, props: true },
          { path: 'calendar', name: 'calendar', component: CalendarPage, props: true },
          { path: 'you', name: 'you', component: YouPage, props: true },
          { path: 'shelf', name: 'shelf', component: ShelfPage, props: true },
          { path: 'feed', name: 'feed', component: FeedPage, props: true },
          { path: 'feed/directories', name: 'directories', component: DirectoriesPage, props: true },
          { path: 'feed/private', name: 'private-feeds', component: PrivateFeedsPage, props: true },
          { path: 'feed/strands', name: 'strands', component: StrandsPage, props: true },
          { path: 'feed/check', name: 'feed-check', component: FeedCheckPage, props: true },
          { path: 'feed/facts', name: 'feed-facts', component: FeedFactsPage, props: true },
          { path: 'site', name: 'site', component: ThemePage, props: true },
          { path: 'site/comments', name: 'site-comments', component: CommentsPage, props: true },
          { path: 'site/share', name: 'site-share', component: SharePage, props: true },
          { path: 'site/host', name: 'site-host', component: CustomDomainPage, props: true },
          { path: 'site/pages', name: 'site-pages', component: OwnPagesPage, props: true },
          { path: 'habits', name: 'habits', component: HabitsPage, props: true },
          { path: 'rhythm', name: 'rhythm', component: RhythmPage, props: true },
          { path: 'facts', name: 'facts', component: ShowFormPage, props: true },
          { path: 'episodes/:id', name: 'desk', component: DeskPage, props: true },
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
