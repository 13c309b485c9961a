import { IntlMessageFormat } from 'intl-messageformat'

/** What stands in a message for its names. */
export type MessageValues = Readonly<Record<string, string | number>>
/** What stands for a tag, made of the words in it: as a slot of a component is drawn. */
export type MessageTags<Part> = Readonly<Record<string, ((given: { words: string }) => Part) | undefined>>

/**
 * The messages of one language, to be filled in.
 *
 * @param texts ICU MessageFormat, by key, with tags around words that are links or stressed
 * @param locale how numbers and plurals are written (BCP 47)
 */
export function createMessages<Key extends string>(texts: Readonly<Record<Key, string>>, locale: string) {
  const formats = new Map<Key, IntlMessageFormat>()

  function formatOf(key: Key): IntlMessageFormat {
    const format = formats.get(key) ?? new IntlMessageFormat(texts[key], locale)
    formats.set(key, format)
    return format
  }

  return {
    t: (key: Key, values?: MessageValues): string => formatOf(key).format<string>(values) as string,
    /** A message in parts, some of them made by what stands for its tags. */
    parts<Part>(key: Key, values: MessageValues, tags: MessageTags<Part>): (string | Part)[] {
      const made = Object.entries(tags).map(
        ([name, make]) => [name, (words: string[]) => make!({ words: words.join('') })] as const,
      )
      return [formatOf(key).format<Part>({ ...values, ...Object.fromEntries(made) } as never)].flat() as (
        string | Part
      )[]
    },
  }
}
