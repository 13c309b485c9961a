import { z } from 'zod'
import type { ShareValues } from '@core/sharing/texts'

/** An episode that is out, as word of it is passed on. */
export const sharedEpisode = z.object({
  id: z.string(),
  title: z.string(),
  values: z.custom<ShareValues>(),
  pageAddress: z.string(),
  pictureAddress: z.string(),
})
export type SharedEpisode = z.infer<typeof sharedEpisode>

/** The newest that are out, or the one that was asked for first. */
export const sharedEpisodes = z.object({ episodes: z.array(sharedEpisode) })
export type SharedEpisodes = z.infer<typeof sharedEpisodes>
export const sharingQuery = z.object({ first: z.uuid().optional() })
