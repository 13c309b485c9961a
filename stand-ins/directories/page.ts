import type { Book, Submission } from './book'
import type { Character } from './characters'

const escaped = (words: string): string => words.replace(/[&<>"']/g, letter => `&#${letter.codePointAt(0)!};`)
const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: 'UTC' })

const frame = (title: string, inside: string): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)}</title>
<link rel="icon" href="data:,">
<style>
  * { box-sizing: border-box; }
  body { margin: 0; padding: 24px clamp(16px, 5vw, 64px); background: #e3e8df; color: #22281f; font: 15px/1.5 system-ui, sans-serif; }
  main { max-width: 760px; }
  h1 { margin: 0; font-size: 20px; }
  h2 { margin: 20px 0 4px; font-size: 17px; }
  p { margin: 2px 0; color: #4c5646; }
  ol { margin: 8px 0; padding: 0; list-style: none; }
  li { padding: 8px 12px; background: #fbfcf8; border-left: 5px solid #6f8558; margin-bottom: 6px; }
  img { width: 96px; height: 96px; object-fit: cover; }
  a { color: #2f5a1d; }
</style>
</head>
<body><main>${inside}</main></body>
</html>`

/** The front of a directory: what it lists. */
export const frontPage = ({ id, name, about }: Character, book: Book): string =>
  frame(
    `${name}, a stand-in directory`,
    `<h1>${escaped(name)}</h1><p>A stand-in directory. ${escaped(about)}</p>
    <ol>${book
      .listed(id)
      .map(each => `<li><a href="/${id}/shows/${each.id}">${escaped(each.show?.title ?? '')}</a></li>`)
      .join('')}</ol>`,
  )

/** The page of a show in a directory. */
export const showPage = ({ id, name }: Character, { show }: Submission): string =>
  frame(
    `${show?.title ?? ''} on ${name}`,
    `<p><a href="/${id}">${escaped(name)}</a></p>
    ${show?.artwork ? `<img src="${escaped(show.artwork)}" alt="">` : ''}
    <h1>${escaped(show?.title ?? '')}</h1><p>${escaped(show?.description ?? '')}</p>
    <ol>${(show?.episodes ?? [])
      .map(({ title, date }) => `<li>${escaped(title)}<p>${date ? escaped(day.format(new Date(date))) : ''}</p></li>`)
      .join('')}</ol>`,
  )
