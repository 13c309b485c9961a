/** By what downloads are summed, for each day (UTC), of an episode and of the whole show; their places in this list are kept in the database. */
export const dimensions = [
  /** All of them. */
  'day',
  'app',
  'device',
  'place',
  'source',
  /** Of the day (UTC), 0 to 23. */
  'hour',
  /** Of the week where the listener is, 0 on Monday at midnight to 167. */
  'local-hour',
  /** Those of listeners that came to no download, by the reason. */
  'refusal',
  /** Who fetched the feed, by program. */
  'feed-fetchers',
  /** For how many a program says that it fetches the feed. */
  'feed-readers',
] as const
export type Dimension = (typeof dimensions)[number]
