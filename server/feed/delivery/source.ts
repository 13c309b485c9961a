import type { Source } from '@core/counting/count'

/** Our own players say where they stand (`?from=page`); of whoever says anything else, or nothing, it is not known, and the feed is likeliest. */
export const sourceIn = (from: unknown): Source => (from === 'page' || from === 'frame' ? from : 'feed')
