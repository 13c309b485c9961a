import type { Place } from '../../platform/parts/places'

const alone = (name: string, words: string, mark: string): Place => ({ words, mark, tabs: [{ name, words }] })

/** The places of a show, as the frame has them; room is left for two more. */
export const places = {
  show: alone('show', 'Show', 'M4 20h16M6 20V10l6-5 6 5v10M12 20v-5M12 5V2'),
  episodes: alone('episodes', 'Episodes', 'M3 8h14v11H3zM3 8l7 5.5L17 8M7 5h14v10'),
  calendar: alone('calendar', 'Calendar', 'M4 5h16v15H4zM4 9.5h16M8 3v4M16 3v4M7 15q2.5-2 5 0t5 0'),
  shelf: alone('shelf', 'Shelf', 'M3 11h18M3 20h18M6 11V5h4v6M12 11V7h5v4M7 20v-5h6v5M16 20v-6'),
  feed: {
    words: 'Feed',
    mark: 'M3 7q3-2.6 6 0t6 0 6 0M3 12.5q3-2.6 6 0t6 0 6 0M3 18q3-2.6 6 0t6 0 6 0',
    tabs: [
      { name: 'feed', words: 'The feed' },
      { name: 'directories', words: 'Directories' },
      { name: 'strands', words: 'Strands' },
      { name: 'private-feeds', words: 'Private feeds' },
      { name: 'feed-check', words: 'Check a feed' },
    ],
  },
  site: {
    words: 'Site',
    mark: 'M3 5h18v14H3zM3 9h18M7 13h5M7 16h8M15 13h2',
    tabs: [
      { name: 'site', words: 'Look' },
      { name: 'site-share', words: 'Share' },
      { name: 'site-pages', words: 'Pages of your own' },
      { name: 'site-comments', words: 'Comments' },
      { name: 'site-host', words: 'Custom domain' },
    ],
  },
  settings: {
    words: 'Settings',
    mark: 'M4 7h9M17 7h3M4 12h3M11 12h9M4 17h7M15 17h5M15 5v4M9 10v4M13 15v4',
    tabs: [
      { name: 'facts', words: 'Details' },
      { name: 'habits', words: 'New episodes' },
      { name: 'rhythm', words: 'Rhythm' },
      { name: 'feed-facts', words: 'More in the feed' },
    ],
  },
} satisfies Record<string, Place>
