import { type Finding, finding } from './findings'

/** How the host of a file that lives elsewhere behaves. */
export interface HostManners {
  answersRanges: boolean
  redirects: number
  contentType: string | null
}

const longestType = 80

/** What there is to say about a host that gives the file, though not as apps like it best. */
export function hostFindings({ answersRanges, redirects, contentType }: HostManners): Finding[] {
  const found: Finding[] = []
  if (!answersRanges) found.push(finding('warning', 'no-ranges', {}))
  if (redirects > 0) found.push(finding('note', 'redirects', { redirects }))
  if (!/^audio\//i.test(contentType ?? ''))
    found.push(finding('warning', 'content-type', { contentType: contentType?.slice(0, longestType) ?? null }))
  return found
}

/** What there is to say where the file cannot be had at its address. */
export const unreachable = ({ title, detail, todo }: { title: string; detail: string; todo: string }): Finding =>
  finding('error', 'unreachable', { title, detail, todo })
