import sanitizeHtml from 'sanitize-html'

/**
 * Show notes as every listening app can draw them: paragraphs, line breaks, bold, italic, links, lists.
 * Anything else keeps its words and loses its markup; scripts, styles and handlers go whole; links keep
 * http, https and mailto addresses only. Unclosed tags come out closed.
 */
export function cleanNotes(html: string): string {
  const clean = sanitizeHtml(html, {
    allowedTags: ['p', 'br', 'strong', 'em', 'a', 'ul', 'ol', 'li'],
    allowedAttributes: { a: ['href'] },
    allowedSchemes: ['http', 'https', 'mailto'],
    allowedSchemesAppliedToAttributes: ['href'],
    allowProtocolRelative: false,
    nonTextTags: ['script', 'style', 'textarea', 'option', 'noscript', 'template', 'iframe', 'object', 'svg', 'math'],
    disallowedTagsMode: 'discard',
    transformTags: { b: 'strong', i: 'em', h1: 'p', h2: 'p', h3: 'p', h4: 'p', div: 'p', blockquote: 'p' },
    exclusiveFilter: frame => frame.tag === 'a' && !frame.text.trim() && !frame.mediaChildren.length,
  })
  return clean.replace(/<p>\s*<\/p>/g, '').trim()
}
