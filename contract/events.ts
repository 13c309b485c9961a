import { z } from 'zod'

/** That something in a show is another than before; what it is now is asked of it. */
export const news = z.object({
  /**
   * `progress` is what is being done with a file, an episode's sound, a transcript, and how far it is; `feed`, that the public is told
   * something else of the show; `clock`, that time was moved; `listing`, how a show stands in a directory.
   */
  kind: z.enum(['show', 'episode', 'progress', 'upload', 'membership', 'feed', 'clock', 'listing']),
  showId: z.uuid(),
  /** Of the show, the episode, the file, the transcript or draft that is worked on; an upload's news is its episode's. */
  id: z.uuid(),
})
export type News = z.infer<typeof news>
