import type { Platform } from '../../platform/platform'

/** What pages are written with. */
export type SitePlatform = Pick<Platform, 'configuration' | 'database' | 'media' | 'siteAssets'>

/** What a page is where it does not say. */
export const htmlType = 'text/html; charset=utf-8'

/** What is at a path of a show. */
export interface Page {
  /** As it is spelt. */
  path: string
  body: string
  /** HTML where it is not said. */
  type?: string
  /** The site that it may show a frame of. */
  frames?: string | undefined
  /** Whether other sites may show it in a frame. */
  isFramed?: true
}
