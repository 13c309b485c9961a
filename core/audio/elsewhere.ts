import type { Finding } from './findings'

/** How the host of a file that lives elsewhere behaves. */
export interface HostManners {
  answersRanges: boolean
  redirects: number
  contentType: string | null
}

/** What there is to say about a host that gives the file, though not as apps like it best. */
export function hostFindings({ answersRanges, redirects, contentType }: HostManners): Finding[] {
  const found: Finding[] = []
  if (!answersRanges)
    found.push({
      weight: 'worth mending',
      code: 'no-ranges',
      says: 'Its host does not answer byte ranges.',
      rule: 'Apps seek by asking for a part of the file (RFC 9110 section 14).',
      ifItStays: 'Listeners cannot jump ahead, and a broken line starts from the beginning.',
      mend: null,
      places: [],
    })
  if (redirects > 0)
    found.push({
      weight: 'good to know',
      code: 'redirects',
      says: redirects === 1 ? 'The address leads on to another one.' : `The address leads on ${redirects} times.`,
      rule: 'Apps follow a few redirects (common practice, no source).',
      ifItStays: 'Each makes the start a little slower.',
      mend: null,
      places: [],
    })
  if (!/^audio\//i.test(contentType ?? ''))
    found.push({
      weight: 'worth mending',
      code: 'content-type',
      says: `Its host calls it ${contentType?.slice(0, 80) ?? 'nothing at all'}, not a sound.`,
      rule: 'The Content-Type of a sound begins with audio/ (RFC 9110 section 8.3).',
      ifItStays: 'Some apps refuse to play it.',
      mend: null,
      places: [],
    })
  return found
}

/** What there is to say where the file cannot be had at its address. */
export function unreachable({ title, detail, todo }: { title: string; detail: string; todo: string }): Finding {
  return {
    weight: 'must mend',
    code: 'unreachable',
    says: `${title}. ${detail}`,
    rule: 'Apps fetch the file from its address, without a sign-in (common practice, no source).',
    ifItStays: `Listeners cannot hear the episode. ${todo}`,
    mend: null,
    places: [],
  }
}
