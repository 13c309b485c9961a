import type { Arrived } from './mails'

const escaped = (words: string): string => words.replace(/[&<>"']/g, letter => `&#${letter.codePointAt(0)!};`)
const linked = (words: string): string =>
  escaped(words).replace(/https?:\/\/(?:[^\s&]|&#38;)+/g, address => `<a href="${address}">${address}</a>`)
const moment = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone: 'UTC' })

/** The outbox's page: a plain stack of what arrived, in a look of its own, which looks for more by itself. */
export const page = (mails: readonly Arrived[]): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Stand-in outbox (${mails.length})</title>
<link rel="icon" href="data:,">
<style>
  * { box-sizing: border-box; }
  body { margin: 0; padding: 24px clamp(16px, 5vw, 64px); background: #e7e0d2; color: #2b2118; font: 15px/1.5 system-ui, sans-serif; }
  h1 { margin: 0; font-size: 20px; }
  header p { margin: 2px 0 20px; color: #5c4f3d; }
  article { max-width: 760px; margin: 0 0 14px; padding: 12px 16px; background: #fffdf7; border-left: 5px solid #8c6b2f; }
  h2 { margin: 0; font-size: 16px; overflow-wrap: anywhere; }
  article p { margin: 2px 0 8px; color: #5c4f3d; font-size: 13px; font-variant-numeric: tabular-nums; }
  pre { margin: 0; white-space: pre-wrap; overflow-wrap: anywhere; font: inherit; }
  a { color: #6b3d14; }
</style>
</head>
<body>
<header><h1>Stand-in outbox</h1><p>Mail that arrived here goes nowhere else. ${mails.length === 0 ? 'None has arrived yet.' : `${mails.length} so far, the newest first.`}</p></header>
<main>${mails
  .map(
    ({ subject, to, from, arrivedAt, text }) =>
      `<article><h2>${escaped(subject)}</h2><p>${escaped(moment.format(new Date(arrivedAt)))} UTC · to ${escaped(to)} · from ${escaped(from)}</p><pre>${linked(text.trim())}</pre></article>`,
  )
  .join('')}</main>
<script type="module">
  setInterval(async () => {
    const mails = await fetch('/mails').then(answer => answer.json()).catch(() => [])
    if (mails.length > 0 && mails[0].number !== ${mails[0]?.number ?? 0}) location.reload()
  }, 2000)
</script>
</body>
</html>`
