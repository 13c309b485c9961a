import { DOMParser } from '@tiptap/pm/model'
import sanitizeHtml from 'sanitize-html'
import { shallowHtml } from '../xml/html'
import { notesDom } from './dom'
import { notesReading, notesSchema, onOneLine } from './schema'
import { notesHtml, notesRules } from './spelling'

const parser = new DOMParser(notesSchema, notesRules)

/**
 * Show notes as every listening app can draw them, and as the editor writes them: paragraphs, line breaks, headings of one level,
 * bold, italic, links, lists.
 * Anything else keeps its words and loses its markup; scripts, styles and handlers go whole; links keep
 * http, https and mailto addresses only. Unclosed tags come out closed.
 */
export function cleanNotes(html: string): string {
  return notesHtml(parser.parse(notesDom(onOneLine(safeNotes(html))), notesReading))
}

function safeNotes(html: string): string {
  return sanitizeHtml(shallowHtml(html), {
    allowedTags: ['p', 'h3', 'br', 'strong', 'em', 'a', 'ul', 'ol', 'li'],
    allowedAttributes: { a: ['href'] },
    allowedSchemes: ['http', 'https', 'mailto'],
    allowedSchemesAppliedToAttributes: ['href'],
    allowProtocolRelative: false,
    nonTextTags: ['script', 'style', 'textarea', 'option', 'noscript', 'template', 'iframe', 'object', 'svg', 'math'],
    disallowedTagsMode: 'discard',
    transformTags: {
      b: 'strong',
      i: 'em',
      h1: 'h3',
      h2: 'h3',
      h4: 'h3',
      h5: 'h3',
      h6: 'h3',
      div: 'p',
      blockquote: 'p',
      // What has no scheme leads to another place in each app, so it is no address.
      a: withAddress,
    },
    exclusiveFilter: frame => frame.tag === 'a' && !frame.text.trim() && !frame.mediaChildren.length,
  })
}

function withAddress(tagName: string, { href = '' }: sanitizeHtml.Attributes): sanitizeHtml.Tag {
  const address = href.trim()
  return { tagName, attribs: /^(https?:\/\/|mailto:)/i.test(address) ? { href: address } : {} }
}
