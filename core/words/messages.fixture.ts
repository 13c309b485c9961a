import { IntlMessageFormat } from 'intl-messageformat'

export type MessagePart = ReturnType<IntlMessageFormat['getAst']>[number]
/** The kinds of parts, of the message format's parser (icu-messageformat-parser, TYPE). */
const [literal, argument, number, select, plural, pound, tag] = [0, 1, 2, 5, 6, 7, 8]

export const partsOf = (text: string, language: string): MessagePart[] => new IntlMessageFormat(text, language).getAst()

const named = (parts: readonly MessagePart[]): string[] =>
  parts.flatMap((part): string[] => {
    if (part.type === literal || part.type === pound) return []
    if ((part.type === argument || part.type === number) && 'value' in part) return [`{${part.value}}`]
    if (part.type === tag && 'children' in part) return [`<${part.value}>`, ...named(part.children)]
    if ((part.type === plural || part.type === select) && 'options' in part)
      return [`{${part.value}}`, ...Object.values(part.options).flatMap(({ value }) => named(value))]
    throw new Error(`A message has a part of kind ${part.type}, which translators were not told of.`)
  })

/** The values and tags of a message, each once: `{name}`, `<link>`. */
export const placesIn = (text: string, language: string): string[] =>
  [...new Set(named(partsOf(text, language)))].toSorted()

/** The forms of each plural in a message. */
export const pluralsIn = (parts: readonly MessagePart[]): string[][] =>
  parts.flatMap(part =>
    part.type === plural && 'options' in part
      ? [Object.keys(part.options)]
      : part.type === tag && 'children' in part
        ? pluralsIn(part.children)
        : [],
  )
