/** Every place where a picture is used, and the show that uses it there. Another place is an entry here. */
const places = [
  { from: 'shows', column: 'artwork_id', showId: 'id' },
  { from: 'files', column: 'picture_id', showId: 'show_id' },
  { from: 'episodes', column: 'artwork_id', showId: 'show_id' },
  { from: 'picture_uses', column: 'picture_id', showId: 'show_id' },
  { from: 'episode_states s JOIN episodes e ON e.id = s.episode_id', column: 's.artwork_id', showId: 'e.show_id' },
] as const

/** The shows that use the picture `:id`, as a query. */
export const showsUsing = places
  .map(({ from, column, showId }) => `SELECT ${showId} AS show_id FROM ${from} WHERE ${column} = :id`)
  .join(' UNION ')

/** Whether nothing uses the picture `p`, and nobody was told of it, as a condition. */
export const isUnused = [
  'NOT p.is_public',
  ...places.map(({ from, column }) => `NOT EXISTS (SELECT 1 FROM ${from} WHERE ${column} = p.id)`),
].join(' AND ')
