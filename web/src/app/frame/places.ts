import type { Place } from '../../platform/parts/places'
import { t } from './messages'

const alone = (name: string, words: string, mark: string): Place => ({ words, mark, tabs: [{ name, words }] })

/** The places of a show, as the frame has them; room is left for one more. */
export const places = {
  show: alone('show', t('show'), 'M4 20h16M6 20V10l6-5 6 5v10M12 20v-5M12 5V2'),
  episodes: alone('episodes', t('episodes'), 'M3 8h14v11H3zM3 8l7 5.5L17 8M7 5h14v10'),
  calendar: alone('calendar', t('calendar'), 'M4 5h16v15H4zM4 9.5h16M8 3v4M16 3v4M7 15q2.5-2 5 0t5 0'),
  shelf: alone('shelf', t('shelf'), 'M3 11h18M3 20h18M6 11V5h4v6M12 11V7h5v4M7 20v-5h6v5M16 20v-6'),
  feed: {
    words: t('feed'),
    mark: 'M3 7q3-2.6 6 0t6 0 6 0M3 12.5q3-2.6 6 0t6 0 6 0M3 18q3-2.6 6 0t6 0 6 0',
    tabs: [
      { name: 'feed', words: t('theFeed') },
      { name: 'directories', words: t('directories') },
      { name: 'strands', words: t('strands') },
      { name: 'private-feeds', words: t('privateFeeds') },
      { name: 'feed-check', words: t('checkAFeed') },
    ],
  },
  site: {
    words: t('site'),
    mark: 'M3 5h18v14H3zM3 9h18M7 13h5M7 16h8M15 13h2',
    tabs: [
      { name: 'site', words: t('look') },
      { name: 'site-share', words: t('share') },
      { name: 'site-pages', words: t('pagesOfYourOwn') },
      { name: 'site-comments', words: t('comments') },
      { name: 'site-host', words: t('customDomain') },
    ],
  },
  numbers: {
    words: t('numbers'),
    mark: 'M4 20h16M6 20v-5M11 20V9M16 20v-8M4 8q4-5 8-2.500t8-2.500',
    tabs: [
      { name: 'numbers', words: t('downloads') },
      { name: 'numbers-compare', words: t('sideBySide') },
      { name: 'numbers-lines', words: t('fetches') },
    ],
  },
  settings: {
    words: t('settings'),
    mark: 'M4 7h9M17 7h3M4 12h3M11 12h9M4 17h7M15 17h5M15 5v4M9 10v4M13 15v4',
    tabs: [
      { name: 'facts', words: t('details') },
      { name: 'habits', words: t('newEpisodes') },
      { name: 'rhythm', words: t('rhythm') },
      { name: 'feed-facts', words: t('moreInTheFeed') },
    ],
  },
} satisfies Record<string, Place>
