import type { PublicShow } from '@site/facts'
import { artworkAt, artworkSidesPx } from '@core/show/artwork'
import { element, textElement, xmlDocument } from '@core/xml/write'
import { Show } from '../../show/shows/models'
import { addressed, addressesOf } from '../../show/shows/service'
import type { Catalogue } from './catalogue'
import type { Page } from './page'

/** Sitemap protocol 0.9: a sitemap has at most so many addresses. */
export const mostInSitemap = 50_000

/** The pages of a show, for search engines. */
export function sitemap(show: PublicShow, { entries }: Catalogue, { feedChangedAt }: Show): Page {
  const changedAt = feedChangedAt.toISOString()
  const lists = ['', '/episodes', '/people', '/listen'].map(path => ({ address: show.pageAddress + path, changedAt }))
  // When an episode's page was changed last is known of none, and so not said.
  const episodes = entries.map(({ line }) => ({ address: line.pageAddress, changedAt: null }))
  const all = [...lists, ...show.pages.map(({ address }) => ({ address, changedAt: null })), ...episodes]
  return {
    path: 'sitemap.xml',
    type: 'application/xml; charset=utf-8',
    body: xmlDocument(
      element(
        'urlset',
        all
          .slice(0, mostInSitemap)
          .map(({ address, changedAt: at }) =>
            element('url', [textElement('loc', address), textElement('lastmod', at)]),
          ),
        { xmlns: 'http://www.sitemaps.org/schemas/sitemap/0.9' },
      ),
    ),
  }
}

/** What a device shows of a show that somebody puts on its first screen (W3C Web Application Manifest). */
export function manifest(show: PublicShow): Page {
  return {
    path: 'manifest.webmanifest',
    type: 'application/manifest+json; charset=utf-8',
    body: JSON.stringify({
      name: show.name,
      description: show.description,
      lang: show.language,
      start_url: show.pageAddress,
      scope: show.pageAddress,
      display: 'minimal-ui',
      background_color: show.theme.ground,
      theme_color: show.theme.band,
      icons: artworkSidesPx.map(px => ({
        src: artworkAt(show.artworkAddress, px),
        sizes: `${px}x${px}`,
        type: 'image/jpeg',
      })),
    }),
  }
}

/** The sitemaps of all shows that are for everybody. */
export async function sitemapIndex(publicUrl: string): Promise<string> {
  const shows = await Show.findAll({
    where: { isPrivate: false },
    attributes: [...addressed, 'feedChangedAt'],
    order: [['slug', 'ASC']],
    limit: mostInSitemap,
    raw: true,
  })
  return xmlDocument(
    element(
      'sitemapindex',
      shows.map(show =>
        element('sitemap', [
          textElement('loc', `${addressesOf(publicUrl, show).pageAddress}/sitemap.xml`),
          textElement('lastmod', show.feedChangedAt.toISOString()),
        ]),
      ),
      { xmlns: 'http://www.sitemaps.org/schemas/sitemap/0.9' },
    ),
  )
}

/** The same of a show at a host name of its own. */
export const robotsOf = ({ pageAddress }: PublicShow): Page => ({
  path: 'robots.txt',
  type: 'text/plain; charset=utf-8',
  body: ['User-agent: *', 'Disallow:', `Sitemap: ${pageAddress}/sitemap.xml`, ''].join('\n'),
})

/** What search engines may look at (RFC 9309): all that is for everybody; nothing of the studio. */
export const robots = (publicUrl: string): string =>
  ['User-agent: *', 'Disallow: /studio/', 'Disallow: /api/', `Sitemap: ${publicUrl}/sitemap.xml`, ''].join('\n')
