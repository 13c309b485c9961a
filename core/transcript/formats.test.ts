// SubRip has no standard: a parser of the registries stands for how it is commonly read.
import { parse as parseSubtitles } from '@plussub/srt-vtt-parser'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { wordsOf } from './bytes'
import { type Cue, mostCues, NoTranscript, type Transcript } from './cue'
import { estimatedSure } from './doubtful'
import { formatOf, formatsOf, readTranscript, type TranscriptFormat, writeTranscript } from './formats'

const bytes = (words: string): Uint8Array => new TextEncoder().encode(words)
const read = (words: string | Uint8Array, ...known: string[]) =>
  readTranscript(typeof words === 'string' ? bytes(words) : words, known)
const told = (words: string | Uint8Array, ...known: string[]) =>
  read(words, ...known).transcript.cues.map(({ fromMs, toMs, speaker, text }) => [fromMs, toMs, speaker, text])

const usual = `1
00:00:01,000 --> 00:00:03,500
Tove: Is it the reed?

2
00:00:03,600 --> 00:00:06,000
Benno: It is <i>never</i>
the reed.

3
26:00:06,000 --> 26:00:08,250
Tove: I see.
`

describe('SubRip', () => {
  it('is read as a library of the registries reads it, and who speaks is told apart', () => {
    expect(told(usual)).toEqual([
      [1000, 3500, 'Tove', 'Is it the reed?'],
      [3600, 6000, 'Benno', 'It is never\nthe reed.'],
      [93_606_000, 93_608_250, 'Tove', 'I see.'],
    ])
  })
  it.each([
    ['the usual', usual],
    ['without names', usual.replace(/Tove: |Benno: /g, '')],
    ['returns and feeds', usual.replaceAll('\n', '\r\n')],
    ['overlapping', usual.replace('00:00:03,600', '00:00:02,000')],
  ])('%s has the same times and words as there', (_name, words) => {
    const theirs = parseSubtitles(words).entries.map(({ from, to, text }) => [from, to, text.replace(/<\/?i>|\r/g, '')])
    const own = read(words).transcript.cues.map(({ fromMs, toMs, speaker, text }) => [
      fromMs,
      toMs,
      speaker ? `${speaker}: ${text}` : text,
    ])
    expect(own).toEqual(theirs)
  })
  it.each([
    [
      'unnumbered',
      '00:01:00,000 --> 00:01:02,000\nOne\n\n00:01:03,000 --> 00:01:04,000\nTwo',
      [
        [60_000, 62_000, null, 'One'],
        [63_000, 64_000, null, 'Two'],
      ],
    ],
    ['points for commas', '1\n00:00:01.5 --> 00:00:02.25\nOne', [[1500, 2250, null, 'One']]],
    ['reversed', '1\n00:00:05,000 --> 00:00:02,000\nOne', [[5000, 2000, null, 'One']]],
    [
      'no empty line between',
      '1\n00:00:01,000 --> 00:00:02,000\nOne\n2\n00:00:03,000 --> 00:00:04,000\nTwo',
      [
        [1000, 2000, null, 'One'],
        [3000, 4000, null, 'Two'],
      ],
    ],
    [
      'a number that is said, and no empty line',
      '1\n00:00:01,000 --> 00:00:02,000\nOne\n41\n00:00:03,000 --> 00:00:04,000\nTwo',
      [
        [1000, 2000, null, 'One\n41'],
        [3000, 4000, null, 'Two'],
      ],
    ],
    [
      'arrows that people type',
      '1\n00:00:01,000 -> 00:00:02,000\nOne\n\n2\n00:00:03,000 → 00:00:04,000\nTwo',
      [
        [1000, 2000, null, 'One'],
        [3000, 4000, null, 'Two'],
      ],
    ],
    [
      'a number that is said',
      '1\n00:00:01,000 --> 00:00:02,000\nForty-one and\n41\n\n2\n00:00:03,000 --> 00:00:04,000\nTwo',
      [
        [1000, 2000, null, 'Forty-one and\n41'],
        [3000, 4000, null, 'Two'],
      ],
    ],
    [
      'places around times',
      '1\n00:00:01,000 --> 00:00:02,000 X1:40 X2:600 Y1:20 Y2:50\n{\\an8}One',
      [[1000, 2000, null, 'One']],
    ],
  ] as [string, string, unknown][])('%s', (_name, words, expected) => expect(told(words)).toEqual(expected))
})

describe('what cannot be taken as it stands is told', () => {
  it('SubRip: a time before the beginning, and times that are none', () => {
    const words = `1\n-00:00:01,000 --> 00:00:02,000\nOne\n\n2\n00:00:0A,000 --> 00:00:04,000\nTwo`
    expect(told(words)).toEqual([[0, 2000, null, 'One\n2\n00:00:0A,000 --> 00:00:04,000\nTwo']])
    expect(read(words).remarks).toEqual(['One cue began before 0:00 and now begins there.'])
    expect(read(words.replace('0A', '77')).remarks[1]).toBe(
      '“00:00:77,000 --> 00:00:04,000” looks like times that cannot be read, and stands among the words.',
    )
  })
  it.each([
    ['WebVTT', 'WEBVTT\n\n00:01.000 --> 277777:46:39.000\nFour words of it'],
    ['SubRip', '1\n00:00:01,000 --> 277777:46:39,000\nFour words of it'],
  ])('%s whose end lies beyond any sound has an estimated one', (_name, words) => {
    expect(read(words).transcript.cues).toMatchObject([{ fromMs: 1000, toMs: 2056, sure: estimatedSure }])
    expect(read(words).remarks).toEqual(['One time lay further on than any audio is long; it is estimated now.'])
  })
  it('JSON whose end is 999,999,999 seconds or none takes as long as its words', () => {
    const json = (end: object) => JSON.stringify({ segments: [{ startTime: 1, ...end, body: 'Four words of it' }] })
    expect(told(json({ endTime: 999_999_999 }))).toEqual([[1000, 2056, null, 'Four words of it']])
    expect(told(json({}))).toEqual([[1000, 2056, null, 'Four words of it']])
  })
})

describe('what other programs write', () => {
  it('JSON with start, end and text', () => {
    const parts = [
      { start: 0.5, end: 2, text: 'Is it the reed?', speaker: 'Tove' },
      { start: 2, end: 3.25, text: 'Never.' },
    ]
    const expected = [
      [500, 2000, 'Tove', 'Is it the reed?'],
      [2000, 3250, null, 'Never.'],
    ]
    expect(told(JSON.stringify(parts))).toEqual(expected)
    expect(told(JSON.stringify({ segments: parts }))).toEqual(expected)
  })
  it('timed lines of lyrics', () => {
    const words =
      '[ti:A letter from a chapel]\n[offset:+500]\n\n[00:01.50]Is it the reed?\n[00:04:00][00:09.00]<00:04.00>It is <00:05.00>never\n[00:06.00]\nNobody'
    expect(told(words)).toEqual([
      [1000, 3500, null, 'Is it the reed?'],
      [3500, 5500, null, 'It is never'],
      [8500, 9226, null, 'It is never'],
    ])
    expect(read(words)).toMatchObject({ format: 'lrc', remarks: ['One line has no time and was left out.'] })
  })
  it('SubStation Alpha: who, when and what, in the order of time, without places and drawings', () => {
    const words = `[Script Info]
Title: A letter from a chapel

[V4+ Styles]
Format: Name, Fontname
Style: Default,Serif

[Events]
Format: Layer, Start, End, Style, Name, MarginL, MarginR, MarginV, Effect, Text
Dialogue: 0,0:00:03.60,0:00:06.00,Default,Benno,0,0,0,,{\\an8}It is never,\\Nthe {\\i1}reed{\\i0}.
Comment: 0,0:00:03.60,0:00:06.00,Default,,0,0,0,,to be checked
Dialogue: 0,0:00:01.00,0:00:03.50,Default,Tove,0,0,0,,Is it the reed?
Dialogue: 0,0:00:07.00,0:00:08.00,Default,,0,0,0,,{\\p1}m 0 0 l 100 0{\\p0}
Dialogue: 0,later,0:00:08.00,Default,,0,0,0,,Lost
`
    expect(told(words)).toEqual([
      [1000, 3500, 'Tove', 'Is it the reed?'],
      [3600, 6000, 'Benno', 'It is never,\nthe reed.'],
    ])
    expect(read(words)).toMatchObject({
      format: 'ass',
      remarks: ['One line has times that cannot be read and was left out.'],
    })
  })
  it('a page that begins as XML is a page', () => {
    const page = '<?xml version="1.0"?>\n<!DOCTYPE html>\n<html><body><p>Is it the reed?</p></body></html>'
    expect(told(page)).toEqual([[null, null, null, 'Is it the reed?']])
  })
  it.each([
    ['{\\rtf1\\ansi Tove: Is it the reed?}', 'It is a text with formatting (RTF)'],
    ['%PDF-1.7\nwords', 'It is a PDF'],
    ['<?xml version="1.0"?>\n<tt xmlns="http://www.w3.org/ns/ttml"><body/></tt>', 'It is captions in TTML'],
    ['<?xml version="1.0"?><rss/>', 'It is XML'],
  ])('%s is refused by its name', (words, why) => expect(() => read(words)).toThrow(why))
})

describe('captions as they are written', () => {
  it('have lines of at most 32 letters in SubRip, but where one word is longer or a file brought them so', () => {
    const text = 'It is never the reed, and hardly ever the Harmoniumwindkastenverschluss, he says.'
    const cue: Cue = { id: 'a', fromMs: 0, toMs: 9000, speaker: 'Benno', text }
    const lines = writeTranscript('srt', { cues: [cue] })
      .trim()
      .split('\n')
      .slice(2)
    expect(lines.join(' ')).toBe(`Benno: ${text}`)
    expect(lines.filter(line => line.length > 32)).toEqual([])
    const brought = `1\n00:00:01,000 --> 00:00:02,000\n<i>${text}</i>\n`
    expect(writeTranscript('srt', read(brought).transcript)).toBe(brought)
  })
  it('begin in order and end behind their beginning, whatever stands in the studio', () => {
    const cue = (fromMs: number, toMs: number, text: string): Cue => ({ id: text, fromMs, toMs, speaker: null, text })
    const cues = [cue(5000, 2000, 'Three'), cue(1000, 1000, 'One'), cue(3000, 4000, 'Two')]
    const times = [
      [1000, 1198],
      [3000, 4000],
      [5000, 5330],
    ]
    expect(parseSubtitles(writeTranscript('srt', { cues })).entries.map(({ from, to }) => [from, to])).toEqual(times)
    expect(parseSubtitles(writeTranscript('vtt', { cues })).entries.map(({ from, to }) => [from, to])).toEqual(times)
  })
})

describe('encodings', () => {
  const words = 'WEBVTT\n\n00:01.000 --> 00:02.000\nÜber die Öffnung: “nein”\n'
  const wide = (order: 'le' | 'be', mark: boolean): Uint8Array => {
    const buffer = Buffer.from((mark ? '\ufeff' : '') + words, 'utf16le')
    return order === 'le' ? buffer : buffer.swap16()
  }
  it.each([
    ['UTF-8', bytes(words)],
    ['UTF-8 with a mark', bytes(`\ufeff${words}`)],
    ['UTF-16 with a mark', wide('le', true)],
    ['UTF-16, the other order, with a mark', wide('be', true)],
    ['UTF-16 without', wide('le', false)],
    ['UTF-16, the other order, without', wide('be', false)],
  ])('%s', (_name, file) => expect(told(file)).toEqual([[1000, 2000, null, 'Über die Öffnung: “nein”']]))
  it('Latin-1, as older programs write it (WHATWG Encoding, windows-1252)', () => {
    const latin = Buffer.from(words.replace('“nein”', 'nein'), 'latin1')
    expect(wordsOf(latin)).toContain('Über die Öffnung: nein')
  })
})

describe('JSON of the podcast namespace', () => {
  it('with times missing takes them from those beside', () => {
    const segments = [
      { speaker: 'Tove', startTime: 0.5, endTime: 2, body: 'One' },
      { body: 'Two' },
      { startTime: '3.25', body: 'Three' },
      { startTime: 5, endTime: 6, body: 'Four' },
    ]
    const { transcript, remarks } = read(JSON.stringify({ version: '1.0.0', segments }))
    expect(transcript.cues.map(({ fromMs, toMs }) => [fromMs, toMs])).toEqual([
      [500, 2000],
      [2000, 3250],
      [3250, 5000],
      [5000, 6000],
    ])
    expect(remarks).toEqual(['2 of its parts lacked a time; it was taken from those beside them.'])
  })
  it.each([
    ['{"segments":[{"body":1}]}', 'Part 1 of the “segments” has no “body” with its words.'],
    ['{"parts":[]}', 'JSON of a transcript has a list of “segments”; this has none.'],
    ['[{"start":1}]', 'Part 1 of the “segments” has no “body” with its words.'],
    ['{"segments":[', 'It begins like JSON, and is none.'],
  ])('%s is refused in words', (words, why) => expect(() => read(words)).toThrow(why))
})

describe('plain text', () => {
  it('with names, and lines that belong together', () => {
    expect(told('Tove: Is it\nthe reed?\n\nBenno: Never.\n\nTove: I see.\n')).toEqual([
      [null, null, 'Tove', 'Is it\nthe reed?'],
      [null, null, 'Benno', 'Never.'],
      [null, null, 'Tove', 'I see.'],
    ])
  })
  it('with times before, in brackets, or on lines of their own', () => {
    const expected = [
      [0, 65_000, 'Tove', 'One'],
      [65_000, 65_198, 'Benno', 'Two'],
    ]
    expect(told('[0:00] Tove: One\n[1:05] Benno: Two', 'Tove', 'Benno')).toEqual(expected)
    expect(told('00:00:00\nTove: One\n\n00:01:05\nBenno: Two', 'Tove', 'Benno')).toEqual(expected)
  })
  it('a clause that ends in a colon is nobody’s name', () => {
    expect(told('What it takes: wax\n\nWhat it takes: wood')[0]).toEqual([null, null, null, 'What it takes: wax'])
    expect(told('Remember: wax first.')).toEqual([[null, null, null, 'Remember: wax first.']])
  })
})

describe('HTML', () => {
  it('with who, when and what', () => {
    expect(
      told(
        '<cite>Tove:</cite><time>0:05</time><p>Is it<br>wax?</p><cite>Benno:</cite><time>0:09</time><p>&amp; wood</p>',
      ),
    ).toEqual([
      [5000, 9000, 'Tove', 'Is it\nwax?'],
      [9000, 9396, 'Benno', '& wood'],
    ])
  })
  it('of a page, without its script', () => {
    expect(
      told(
        '<!doctype html><html><head><title>x</title><script>alert(1)</script></head><body><div>One</div><div>Two</div></body></html>',
      ),
    ).toEqual([
      [null, null, null, 'One'],
      [null, null, null, 'Two'],
    ])
  })
})

it.each([
  ['WEBVTT\n', 'vtt'],
  ['\ufeffWEBVTT - x\n', 'vtt'],
  ['1\n00:00:01,000 --> 00:00:02,000\nx', 'srt'],
  ['00:01.000 --> 00:02.000\nx', 'vtt'],
  ['{"segments":[]}', 'json'],
  ['<!DOCTYPE html><html>', 'html'],
  ['<meta charset="utf-8"><p>One', 'html'],
  ['<!-- one --><div>One', 'html'],
  ['<?xml version="1.0"?>\n<html><body>One', 'html'],
  ['[ar:The harmonium]\n[00:01.00]One', 'lrc'],
  ['[00:01.00]One', 'lrc'],
  ['[0:01] Tove: One', 'txt'],
  ['[Script Info]\nTitle: One', 'ass'],
  ['1\n00:00:01,000 -> 00:00:02,000\nx', 'srt'],
  ['A letter from a chapel --> here', 'txt'],
  ['WEBVTTish', 'txt'],
] as const)('“%s” is %s', (words, format) => expect(formatOf(words)).toBe(format))

describe('what is no transcript is refused in words', () => {
  it.each([
    ['nothing', '', 'There is nothing in it.'],
    ['a space', ' ', 'There is nothing in it.'],
    [
      'a picture',
      new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 13, 1, 2, 3]),
      'It is no text: there are bytes in it that no text has.',
    ],
    ['60 MB of text', 'word '.repeat(12_000_000), 'It has 60 MB; a transcript has at most 10 MB.'],
    [
      'times without words',
      '1\n00:00:01,000 --> 00:00:02,000\n\n',
      'There are no words in it that somebody could have said.',
    ],
    ['too many parts', 'a\n\n'.repeat(mostCues + 1), 'It has 50,001 parts; at most 50,000 are taken.'],
  ])('%s', (_name, words, why) => {
    expect(() => read(words)).toThrow(NoTranscript)
    expect(() => read(words)).toThrow(why)
  })
})

/** Lines that are not empty, without spaces at their ends, as every format can hold them. */
const line = fc
  .stringMatching(/^[a-zA-ZäöÜß漢ש&<>'“.,!? -]{1,40}$/)
  .map(words => words.replace(/\s+/g, ' ').trim())
  .filter(words => /[\p{L}]/u.test(words) && !words.includes('-->') && !/^[-–[]/.test(words))
const speaker = fc.constantFrom(null, 'Tove', 'Sister Amabel', 'Benno & Co')
const cues = fc
  .array(
    fc.record({
      speaker,
      text: fc.array(line, { minLength: 1, maxLength: 3 }),
      gap: fc.nat(5000),
      length: fc.integer({ min: 1, max: 9000 }),
    }),
    { minLength: 1, maxLength: 12 },
  )
  .map(parts => {
    let at = 0
    return parts.map(({ speaker: name, text, gap, length }, index): Cue => {
      const fromMs = at + gap
      at = fromMs + length
      return { id: `c${index + 1}`, fromMs, toMs: at, speaker: name, text: text.join('\n') }
    })
  })

describe('a round trip loses nothing that the format can hold', () => {
  const back = (format: TranscriptFormat, transcript: Transcript) =>
    read(writeTranscript(format, transcript), 'Tove', 'Sister Amabel').transcript.cues
  const bare = ({ fromMs, toMs, speaker: name, text }: Cue) => ({ fromMs, toMs, speaker: name, text })
  /** SubRip has no escapes, and takes a name for one only where it looks like it. */
  const forSrt = (all: Cue[]): Cue[] =>
    all
      .map(cue => ({
        ...cue,
        speaker: cue.speaker?.includes('&') ? null : cue.speaker,
        text: cue.text
          .split('\n')
          .map(words => words.replace(/[<>]/g, '').trim())
          .filter(words => /\p{L}/u.test(words))
          .join('\n'),
      }))
      .filter(({ text }) => text !== '')

  it('WebVTT and JSON: times, speakers, words, lines', () => {
    fc.assert(
      fc.property(cues, all => {
        expect(back('vtt', { cues: all }).map(bare)).toEqual(all.map(bare))
        expect(back('json', { cues: all }).map(bare)).toEqual(all.map(bare))
      }),
    )
  })
  it('SubRip: the same, but for what looks like a tag', () => {
    fc.assert(
      fc.property(
        cues.map(forSrt).filter(({ length }) => length > 0),
        all => {
          // Its lines are shorter, and broken anew.
          const inOneLine = (cue: Cue) => ({ ...bare(cue), text: cue.text.replace(/\n/g, ' ') })
          expect(back('srt', { cues: all }).map(inOneLine)).toEqual(all.map(inOneLine))
        },
      ),
    )
  })
  it('HTML: when each begins, speakers, words, lines', () => {
    fc.assert(
      fc.property(cues, all => {
        expect(back('html', { cues: all }).map(({ fromMs, speaker: name, text }) => [fromMs, name, text])).toEqual(
          all.map(({ fromMs, speaker: name, text }) => [fromMs, name, text]),
        )
      }),
    )
  })
  it('plain text: speakers, words, lines', () => {
    fc.assert(
      fc.property(
        cues.map(forSrt).filter(({ length }) => length > 0),
        all => {
          expect(back('txt', { cues: all }).map(({ speaker: name, text }) => [name, text])).toEqual(
            all.map(({ speaker: name, text }) => [name, text]),
          )
        },
      ),
    )
  })
})

it('captions need times', () => {
  const cue: Cue = { id: 'a', fromMs: null, toMs: null, speaker: null, text: 'One' }
  expect(formatsOf({ cues: [cue] })).toEqual(['json', 'html', 'txt'])
  expect(formatsOf({ cues: [{ ...cue, fromMs: 0, toMs: 1 }] })).toContain('vtt')
})
