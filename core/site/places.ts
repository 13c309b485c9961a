/** Pages that the site of every show has beside those of its episodes. */
export const sitePlaces = ['episodes', 'people', 'listen', 'search'] as const
/** Parts of addresses within a show that are something else's than an episode's or a page's of its maker. */
export const keptParts: readonly string[] = [...sitePlaces, 'strands', 'embed', 'comments', 'share', 'pages', 'icon']
