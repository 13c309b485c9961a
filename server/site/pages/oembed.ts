import { artworkAt } from '@core/show/artwork'
import { embedCode, embedHeight, embedWidth } from '@core/site/embed'
import { element, textElement, xmlDocument } from '@core/xml/write'
import { publicOutlet } from '../../show/episodes/audience'
import { AppError, badInput } from '../../platform/http/errors'
import { publicShowAt } from '../../show/shows/addresses'
import { Show } from '../../show/shows/models'
import { catalogueOf } from './catalogue'
import { publicShow } from './facts'
import type { SitePlatform } from './page'

export interface OembedQuery {
  url?: string | undefined
  format?: string | undefined
  maxwidth?: string | undefined
  maxheight?: string | undefined
}

/** A player for the address of a show or an episode, as oEmbed 1.0 tells it (section 2.3.4.4, rich type). */
export async function oembed(platform: SitePlatform, { url, format = 'json', maxwidth, maxheight }: OembedQuery) {
  // Section 2.3.3: "501 Not Implemented" where the provider cannot return a response in the requested format.
  if (format !== 'json' && format !== 'xml')
    throw new AppError('no-such-format', `The format ${JSON.stringify(format)} is not there; json and xml are.`)
  if (!url) throw badInput('url', url ?? '', 'The address of a show’s or an episode’s page.')
  const { publicUrl } = platform.configuration
  const { row, slug } = await meant(url, publicUrl)
  if (!row) throw nothingThere()
  const [show, { entries }] = await Promise.all([
    publicShow(platform, row, publicUrl),
    catalogueOf(row, publicUrl, publicOutlet(publicUrl)),
  ])
  const entry = slug ? entries.find(each => each.slug === slug) : null
  if (slug && !entry) throw nothingThere()
  const width = Math.min(embedWidth, most('maxwidth', maxwidth))
  const height = Math.min(embedHeight(entry ? 'episode' : 'show', width), most('maxheight', maxheight))
  const title = entry ? entry.line.title : show.name
  const picture = artworkAt(entry?.line.artworkAddress ?? show.artworkAddress, 480)
  const facts = {
    type: 'rich',
    version: '1.0',
    title,
    author_name: show.author,
    author_url: show.pageAddress,
    provider_name: show.name,
    provider_url: show.pageAddress,
    cache_age: 3600,
    thumbnail_url: picture,
    thumbnail_width: 480,
    thumbnail_height: 480,
    html: embedCode(`${entry ? entry.line.pageAddress : show.pageAddress}/embed`, title, { width, height }),
    width,
    height,
  }
  return format === 'json'
    ? { type: 'application/json; charset=utf-8', body: JSON.stringify(facts) }
    : { type: 'text/xml; charset=utf-8', body: xmlOf(facts) }
}

/** The show, where it is for everybody, and the part of an episode's address, that an address names. */
async function meant(url: string, publicUrl: string): Promise<{ row: Show | null; slug: string | undefined }> {
  if (url.startsWith(`${publicUrl}/`)) {
    const [, named, slug] = /^\/([a-z0-9-]+)(?:\/([a-z0-9-]+))?\/?(?:[?#]|$)/.exec(url.slice(publicUrl.length)) ?? []
    return { row: named ? await publicShowAt(named) : null, slug }
  }
  const [, slug] = URL.canParse(url) ? (/^\/(?:([a-z0-9-]+)\/?)?$/.exec(new URL(url).pathname) ?? []) : []
  const hostName = URL.canParse(url) ? new URL(url).hostname : null
  return { row: hostName ? await Show.findOne({ where: { hostName, isPrivate: false } }) : null, slug }
}

const xmlOf = (facts: Readonly<Record<string, string | number>>): string =>
  xmlDocument(
    element(
      'oembed',
      Object.entries(facts).map(([name, value]) => textElement(name, value)),
    ),
  )

function most(field: string, value: string | undefined): number {
  if (value === undefined) return Infinity
  if (!/^[1-9]\d{0,5}$/.test(value)) throw badInput(field, value, 'A whole number of pixels, from 1.')
  return Number(value)
}

const nothingThere = (): AppError => new AppError('not-found', 'No show and no episode has this address.')
