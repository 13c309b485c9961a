/**
 * A moment as RSS wants it: RFC 5322 section 3.3 with a numeric zone, always UTC,
 * for example `Thu, 03 Dec 2026 05:00:00 +0000`.
 */
export function feedDate(moment: Date): string {
  return moment.toUTCString().replace('GMT', '+0000')
}
