import { parse as parseSubtitles } from '@plussub/srt-vtt-parser'
import { readSrt, writeSrt } from '@core/transcript/srt'
import { readVtt, writeVtt } from '@core/transcript/vtt'
import webvtt from 'webvtt-parser'

const { WebVTTParser, WebVTTSerializer } = webvtt
const cues = 20_000
const stamp = (ms: number, point: string): string => new Date(ms).toISOString().slice(11, 23).replace('.', point)
const file = (point: string, head: string): string =>
  head +
  Array.from(
    { length: cues },
    (_each, at) =>
      `${at + 1}\n${stamp(at * 3000, point)} --> ${stamp(at * 3000 + 2900, point)}\nIt is never the reed,\nand it is word ${at}.\n`,
  ).join('\n')

function median(act: () => unknown, rounds = 9): number {
  act()
  const times = Array.from({ length: rounds }, () => {
    const from = performance.now()
    act()
    return performance.now() - from
  }).sort((one, other) => one - other)
  return times[rounds >> 1]!
}
const told = (name: string, ours: number, theirs: number): void =>
  console.log(`${name}: ${(ours / theirs).toFixed(2)} (${ours.toFixed(0)} ms : ${theirs.toFixed(0)} ms)`)

/** Time to read and write transcripts of 20,000 cues, against libraries of the registries. */
export function benchTranscripts(): void {
  const [vtt, srt] = [file('.', 'WEBVTT\n\n'), file(',', '')]
  told(
    '20,000 cues of WebVTT read and written, time against webvtt-parser',
    median(() => writeVtt(readVtt(vtt).transcript)),
    median(() => new WebVTTSerializer().serialize(new WebVTTParser().parse(vtt, 'captions').cues), 3),
  )
  told(
    '20,000 cues of WebVTT read, time against @plussub/srt-vtt-parser',
    median(() => readVtt(vtt)),
    median(() => parseSubtitles(vtt)),
  )
  told(
    '20,000 cues of SubRip read, time against @plussub/srt-vtt-parser',
    median(() => readSrt(srt)),
    median(() => parseSubtitles(srt)),
  )
  told(
    'the same read and written, against its reading alone, since it does not write',
    median(() => writeSrt(readSrt(srt).transcript)),
    median(() => parseSubtitles(srt)),
  )
}
