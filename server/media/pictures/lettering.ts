import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import opentype, { type Font, type Path } from 'opentype.js'
import type { Lettering } from '@core/site/sharePicture'

/** The writings of the house's book face, each in a file of its own. */
const writings = ['latin', 'latin-ext', 'cyrillic', 'cyrillic-ext', 'greek', 'greek-ext', 'vietnamese']
const find = createRequire(import.meta.url)

/** The letters of the house, as outlines: what is drawn with them needs no font on the machine. */
export function houseLettering(): Lettering {
  const fonts = writings.map((writing): Font => {
    const file = readFileSync(find.resolve(`@fontsource/literata/files/literata-${writing}-400-normal.woff`))
    return opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.length))
  })
  const fontFor = (letter: string): Font | undefined => fonts.find(font => font.charToGlyphIndex(letter) > 0)

  /** Stretches that one font has, each as long as can be. */
  function runs(words: string): { font: Font; words: string }[] {
    const found: { font: Font; words: string }[] = []
    for (const letter of words.normalize('NFC')) {
      const font = fontFor(letter) ?? fonts[0]!
      const open = found.at(-1)
      if (open?.font === font) open.words += letter
      else found.push({ font, words: letter })
    }
    return found
  }
  return {
    widthOf: (words, sizePx) =>
      runs(words).reduce((sum, { font, words: run }) => sum + font.getAdvanceWidth(run, sizePx), 0),
    outline(words, x, y, sizePx) {
      let left = x
      return runs(words)
        .map(({ font, words: run }) => {
          const path = dataOf(font.getPath(run, left, y, sizePx))
          left += font.getAdvanceWidth(run, sizePx)
          return path
        })
        .join('')
    },
    has: words => [...words.normalize('NFC')].every(letter => /\s/.test(letter) || fontFor(letter) !== undefined),
  }
}

/** SVG path data, to a tenth of a px. (What the library writes itself has NaN in it.) */
const dataOf = ({ commands }: Path): string =>
  commands
    .map(({ type, ...at }) => {
      const { x1, y1, x2, y2, x, y } = at as Partial<Record<'x1' | 'y1' | 'x2' | 'y2' | 'x' | 'y', number>>
      return (
        type +
        [x1, y1, x2, y2, x, y]
          .filter(value => value !== undefined)
          .map(value => Math.round(value * 10) / 10)
          .join(' ')
      )
    })
    .join('')
