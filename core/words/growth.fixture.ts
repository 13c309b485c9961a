import { chaptersFault } from '../chapters/json'
import { markOf, marksIn, marksInNotes } from '../chapters/marks'
import { withoutSlashesBehind } from '../address/slashes'
import { slugFrom } from '../address/slug'
import { isWebAddress } from '../address/web'
import { cleanName, cleanWords, commentFault, linksIn } from '../comments/comment'
import { prefillFrom } from '../episode/prefill'
import { readProgram } from '../counting/programs'
import { patternFault, patternTitle } from '../episode/titlePattern'
import { firstSentence } from '../episode/wants'
import { addressesIn } from '../feed/addresses'
import { feedText } from '../feed/bytes'
import { checkFeed } from '../feed/check'
import { compareFeeds, comparisonWords } from '../feed/compare'
import { readHttpDate } from '../feed/dates'
import { itemDescription, safeInBothReadings } from '../feed/description'
import { readFeed } from '../feed/read'
import { filmAddress, isFilmAddress } from '../film/address'
import { isMisspelt, linkedAddresses } from '../notes/addresses'
import { cleanNotes } from '../notes/clean'
import { fieldsIn, fillNotes, templateFault } from '../notes/fill'
import { readLinks } from '../notes/links'
import { pastedNotes } from '../notes/pasted'
import { plainNotes } from '../notes/plain'
import { namesOfOne } from '../people/same'
import { excerptOf } from '../search/excerpt'
import { passagesOf } from '../search/passages'
import { hasPhrases, readQuery } from '../search/query'
import { indexedWords, tokensOf } from '../search/tokens'
import { filledShareText, mailLink, shareTextFault } from '../sharing/texts'
import { readFilter } from '@core/site/filter'
import { hostNameFrom } from '@core/site/hostName'
import { spellingsOf } from '../tags/spellings'
import { readTags, tagKey } from '../tags/tags'
import { readAss } from '../transcript/ass'
import { doubtfulWords } from '../transcript/doubtful'
import { readDraft } from '../transcript/draft'
import { findWords, replaceWords, speakersIn } from '../transcript/edit'
import { cueFindings } from '../transcript/findings'
import { readTranscript, writeTranscript } from '../transcript/formats'
import { readHtml } from '../transcript/html'
import { readJson } from '../transcript/json'
import { readLrc } from '../transcript/lrc'
import { unitsOf } from '../transcript/alignment/units'
import { readPlain } from '../transcript/plain'
import { readSrt } from '../transcript/srt'
import { readVtt, vttText } from '../transcript/vtt'
import { fold } from './fold'
import { cutForList } from './listCut'
import { cut, letters, oneLine, trimmed, withoutEmptyLines } from './line'
import { readTimestamp } from './timestamps'
import { readSearch } from './search'
import { xmlSafe } from '../xml/characters'
import { textOf as xmlText } from './growthShapes.fixture'

/** What is done with a text of somebody else's, whatever it is; it may refuse it. */
export type Reading = (text: string) => unknown

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text)
const cuesOf = (text: string) => [
  { id: 'c1', fromMs: 0, toMs: 60_000, speaker: null, text },
  ...text
    .split('\n')
    .map((line, at) => ({ id: `d${at}`, fromMs: at * 10, toMs: at * 10 + 5, speaker: line, text: line })),
]
const met = { address: null, now: new Date(0), answer: null, answers: new Map(), encodingFault: null }

/** Everything in `core` that is given text of somebody else's: files, feeds, what is pasted, typed, asked for. */
export const readings: Readonly<Record<string, Reading>> = {
  'plain transcript': readPlain,
  'SubRip transcript': readSrt,
  'WebVTT transcript': words => readVtt(`WEBVTT\n\n${words}`),
  'WebVTT without its head': words => readVtt(words),
  'timed lyrics': readLrc,
  'SubStation Alpha': words => readAss(`[Script Info]\n[Events]\n${words}`),
  'SubStation Alpha, what is said': words => readAss(`[Events]\nDialogue: 0,0:00:01.00,0:00:02.00,,,0,0,0,,${words}`),
  'WebVTT cue': words => readVtt(`WEBVTT\n\n00:00.000 --> 00:09.000\n${words}`).transcript.cues.map(vttText),
  'HTML transcript': words => readHtml(words),
  'JSON transcript': readJson,
  'JSON transcript, the words of a part': words =>
    readJson(JSON.stringify({ segments: [{ startTime: 0, endTime: 1, body: words }] })),
  'any transcript': words => readTranscript(bytes(words)),
  'drafted transcript': words => readDraft(bytes(`WEBVTT\n\n00:00.000 --> 00:09.000\n${words}`)),
  'transcript that is written': words => {
    const transcript = { cues: cuesOf(words) }
    return (['vtt', 'srt', 'json', 'html', 'txt'] as const).map(format => writeTranscript(format, transcript))
  },
  'cues looked through': words => [
    cueFindings(cuesOf(words), 60_000, [{ fromMs: 0, toMs: 100 }]),
    speakersIn(cuesOf(words)),
    doubtfulWords({ text: words, speaker: null, doubtful: ['a', '1'] } as never),
  ],
  'words found in cues': words => {
    const cues = cuesOf(words)
    return replaceWords(cues, findWords(cues, 'a'), 'a', 'b')
  },
  'script cut into units': words => unitsOf(cuesOf(words), 'en', () => 'new'),
  'feed read': words => addressesIn(readFeed(words)),
  'feed checked': words => checkFeed({ ...met, feed: readFeed(xmlText(words)), bytes: words.length }),
  'feed compared': words => {
    const [earlier, later] = [xmlText(words), xmlText(`${words}<item><guid>later</guid></item>`)].map(readFeed)
    return [comparisonWords(compareFeeds(earlier!, later!)), comparisonWords(compareFeeds(later!, earlier!))]
  },
  'bytes of a feed': words => feedText(bytes(words), words.slice(0, 2_000)),
  chapters: chaptersFault,
  'chapters in text': words => [marksIn(words), markOf(words)],
  'chapters in notes': words => marksInNotes(words),
  'notes cleaned': cleanNotes,
  'notes pasted': words => pastedNotes(words),
  'notes as text': plainNotes,
  'notes with links': words => [linkedAddresses(words), isMisspelt(words)],
  'notes as a template': words => [
    templateFault(words),
    fieldsIn(words),
    fillNotes(words, { title: 'a', hook: 'b', people: [], links: [], chapters: [], show: { name: 'c', address: 'd' } }),
  ],
  links: readLinks,
  description: words => [itemDescription(words), safeInBothReadings(words)],
  'first sentence': firstSentence,
  'title pattern': words => [
    patternFault(words),
    patternTitle(words, { title: 'a', number: 1, season: 1 }, 'b'),
    patternTitle('{title}', { title: words, number: 1, season: 1 }, 'b'),
  ],
  'file name': words => prefillFrom({ fileName: words, tags: { title: words } } as never),
  tags: words => [
    readTags(words),
    tagKey(words),
    spellingsOf(words.split(' ').map(tag => ({ tag, count: 1 })) as never),
  ],
  people: words =>
    namesOfOne(words.split(' ').map(name => ({ name, role: 'Guest', address: null, pictureId: null })) as never),
  'address part': words => [slugFrom(words), withoutSlashesBehind(words), isWebAddress(words), hostNameFrom(words)],
  film: words => isFilmAddress(filmAddress(words)),
  comment: words => [cleanName(words), cleanWords(words), linksIn(words), commentFault({ name: words, words })],
  'share text': words => [shareTextFault(words), filledShareText(words, { title: 'a' } as never), mailLink(words)],
  'words that are asked for': words => [readQuery(words), readSearch(words), readFilter(words)],
  'words in the index': words => tokensOf(words).flatMap(indexedWords),
  'stretches that are found': words =>
    passagesOf({ hook: words, notes: words, people: [], tags: words.split(' ') }, words, [], cuesOf(words)),
  'excerpt of what is found': words => excerptOf({ text: words, times: [] }, readQuery('a b x 1 the word')),
  'phrases that are found': words => hasPhrases(tokensOf(words), readQuery('“a b” “x x x”')),
  'words on a line': words => [fold(words), oneLine(words), cut(words, 40), letters(words), cutForList(words, 40)],
  'words at edges': words => [trimmed(words, ' -.'), withoutEmptyLines(words), xmlSafe(words)],
  moments: words => [readTimestamp(words), readHttpDate(words), readProgram(words)],
}
