import { amount, clock, signed } from '../words/amounts'
import { deepLimitingDb, widestRangeLu } from './advice'
import type { Figures, Finding, FindingCode } from './findings'
import { formatName } from './formats'

/** What a person is told of a finding: what was found, the rule and where it comes from, what happens if it stays. */
export interface FindingWords {
  says: string
  rule: string
  ifItStays: string
}

type Places = Finding['places']
type Words<Code extends FindingCode> = (figures: Figures[Code], places: Places) => FindingWords

const practice = 'common practice, no source'
const frames = 'Sound files are frames, one behind the other (ISO/IEC 11172-3).'
const listenToEnd = 'Listeners would hear it cut off. Listen to the end, or upload the file again.'

const seconds = (ms: number): string => (ms < 60_000 ? `${(ms / 1000).toFixed(1)} s` : clock(ms))

const loudness =
  (way: 'quieter' | 'louder'): Words<'quieter' | 'louder'> =>
  ({ distanceLu, from, gainDb, peakDbtp, targetLufs, channels, needsLimiting }) => ({
    says: `${distanceLu.toFixed(1)} LU ${way} than ${from === 'usual' ? 'your episodes usually are' : 'the show’s target'}. ${gainDb > 0 ? 'Raising' : 'Lowering'} it by ${Math.abs(gainDb).toFixed(1)} dB would put the loudest moment at ${signed(peakDbtp)} dBTP${needsLimiting ? ', so it needs limiting' : ''}.`,
    rule: `The show’s target is ${signed(targetLufs)} LUFS${channels === 1 ? ', for one channel' : ''} (${practice}; measured as ITU-R BS.1770 says).`,
    ifItStays: 'Listeners reach for the volume between this episode and the next.',
  })

const words: { [Code in FindingCode]: Words<Code> } = {
  'cut-short': ({ announcedMs, heardMs, shows }) => {
    const [announced, heard] = [clock(announcedMs ?? 0), clock(heardMs)]
    const how = {
      header: `its header announces ${announced}, it holds ${heard}.`,
      frame: 'it ends in the middle of a frame.',
      page: 'its last page is not marked as the end.',
      decoding: `it announces ${announced}, and ${heard} of it can be heard.`,
    }
    return {
      says: `The file looks cut short: ${how[shows]}`,
      rule: shows === 'page' ? 'The last page of an Ogg stream says that it is the last (RFC 3533 section 6).' : frames,
      ifItStays: listenToEnd,
    }
  },
  'no-beginning': () => ({
    says: 'The beginning is missing: the first frame goes on with sound that is not in the file.',
    rule: 'A frame may keep a part of its sound in those before it (ISO/IEC 11172-3 section 2.4.1.7).',
    ifItStays: 'It begins in the middle of something, often with a crackle. Export it again, or trim the beginning.',
  }),
  'junk-before': ({ bytes }) => ({
    says: `${amount(bytes)} stand before the first sound and are neither sound nor a tag.`,
    rule: frames,
    ifItStays: 'Some apps start late or not at all. Finishing leaves them out.',
  }),
  'junk-within': ({ bytes }) => ({
    says: `${amount(bytes)} in the midst of the file are not sound.`,
    rule: frames,
    ifItStays: 'Apps skip or crackle there. Export the file again.',
  }),
  'junk-behind': ({ bytes, heardMs }) => ({
    says: `Behind ${clock(heardMs)} of sound come ${amount(bytes)} that are none.`,
    rule: frames,
    ifItStays: 'If the episode should be longer, the export is broken: listen to the end, or export it again.',
  }),
  'other-tracks': ({ tracks }) => ({
    says:
      tracks === 2
        ? 'There is a second track of sound in this file.'
        : `There are ${tracks} tracks of sound in this file.`,
    rule: `Listening apps play the first track (${practice}).`,
    ifItStays: 'Only the first one is heard and finished. If a voice is missing, mix the tracks before you export.',
  }),
  'no-ranges': () => ({
    says: 'Its host does not answer byte ranges.',
    rule: 'Apps seek by asking for a part of the file (RFC 9110 section 14).',
    ifItStays: 'Listeners cannot jump ahead, and a broken line starts from the beginning.',
  }),
  redirects: ({ redirects }) => ({
    says: redirects === 1 ? 'The address leads on to another one.' : `The address leads on ${redirects} times.`,
    rule: `Apps follow a few redirects (${practice}).`,
    ifItStays: 'Each makes the start a little slower.',
  }),
  'content-type': ({ contentType }) => ({
    says: `Its host calls it ${contentType ?? 'nothing at all'}, not a sound.`,
    rule: 'The Content-Type of a sound begins with audio/ (RFC 9110 section 8.3).',
    ifItStays: 'Some apps refuse to play it.',
  }),
  unreachable: ({ title, detail, todo }) => ({
    says: `${title}. ${detail}`,
    rule: `Apps fetch the file from its address, without a sign-in (${practice}).`,
    ifItStays: `Listeners cannot hear the episode. ${todo}`,
  }),
  unmeasured: () => ({
    says: 'The sound could not be measured.',
    rule: `Measuring hears every sample; where it stops, apps may stop too (${practice}).`,
    ifItStays: 'Its loudness is not known, and it cannot be finished. Listen to all of it, or export it again.',
  }),
  'not-deliverable': ({ type }) => ({
    says: `${formatName(type)} cannot be published as is.`,
    rule: `Listening apps play MP3, and most of them M4A (${practice}).`,
    ifItStays: 'It is kept here, and cannot be released. Finishing encodes it.',
  }),
  'many-channels': ({ channels }) => ({
    says: `It has ${channels} channels.`,
    rule: `Listening apps expect one or two (${practice}).`,
    ifItStays: 'Some apps play only some of the channels. Finishing mixes them to two.',
  }),
  silent: () => ({
    says: 'There is nothing but silence in this file.',
    rule: `An episode can be heard; anything under −50 dBFS counts as silence (${practice}).`,
    ifItStays: 'Listeners hear nothing. The wrong track may have been exported.',
  }),
  quieter: loudness('quieter'),
  louder: loudness('louder'),
  'deep-limiting': ({ heldBackDb, when }) => ({
    says:
      when === 'before'
        ? `Finishing would hold the loudest moments back by about ${heldBackDb.toFixed(0)} dB.`
        : `The loudest moments were held back by up to ${heldBackDb.toFixed(0)} dB.`,
    rule: `Peaks of more than ${deepLimitingDb} dB over the ceiling are a lot to hold back (${practice}).`,
    ifItStays: `${when === 'before' ? 'Where it is one knock or one laugh, it does no harm; where it is often, the sound loses its life.' : 'Listen to the loud places.'} Evening out soft and loud first, or a lower target, holds back less.`,
  }),
  'target-missed': ({ targetLufs, ceilingDbtp, missedByLu }) => ({
    says: `The target of ${signed(targetLufs)} LUFS and the ceiling of ${signed(ceilingDbtp)} dBTP cannot both be had: the ceiling was kept, and it is ${Math.abs(missedByLu).toFixed(1)} LU ${missedByLu < 0 ? 'quieter' : 'louder'} than the target.`,
    rule: `The ceiling goes before the target: what is over it crackles, what is quieter is turned up (${practice}).`,
    ifItStays: 'Listeners turn it up a little. Evening out soft and loud brings it closer to the target.',
  }),
  peaks: ({ truePeakDbtp, ceilingDbtp }) => ({
    says: `The loudest moment reaches ${signed(truePeakDbtp)} dBTP.`,
    rule: `The show’s ceiling is ${signed(ceilingDbtp)} dBTP (EBU R 128 asks for −1).`,
    ifItStays: 'It can crackle where an app converts it or plays it through small loudspeakers.',
  }),
  clipped: ({ clips }, places) => ({
    says:
      clips === 1
        ? `One place is clipped, at ${clock(places[0]!.fromMs)}.`
        : `${clips.toLocaleString('en')} places are clipped, the first at ${clock(places[0]!.fromMs)}.`,
    rule: `Three samples in a row that stand alike at full scale were cut off (${practice}).`,
    ifItStays:
      'It sounds harsh there. Listen to the places; the recording has to be made again with less level to be rid of them.',
  }),
  'head-silence': ({ silenceMs }) => ({
    says: `It begins with ${seconds(silenceMs)} of silence.`,
    rule: `A second at the head is enough (${practice}).`,
    ifItStays: 'Listeners may think it isn’t playing.',
  }),
  'tail-silence': ({ silenceMs }) => ({
    says: `It ends with ${seconds(silenceMs)} of silence.`,
    rule: `Three seconds at the tail are enough (${practice}).`,
    ifItStays: 'The next episode starts late, and the length shown is not what is heard.',
  }),
  damaged: ({ places: count }, places) => ({
    says: `The file is damaged at ${clock(places[0]!.fromMs)}${count > 1 ? ` and in ${count - 1} other place${count > 2 ? 's' : ''}` : ''}: what is decoded there is no sound.`,
    rule: `Sound lies near full scale, or below it (${practice}).`,
    ifItStays:
      'In what is processed here it is left out, so there is a gap; apps that play the file itself may burst out loud.',
  }),
  gaps: ({ gaps }, places) => ({
    says:
      gaps === 1
        ? `It is silent for ${seconds(places[0]!.toMs - places[0]!.fromMs)} at ${clock(places[0]!.fromMs)}.`
        : `It falls silent ${gaps} times for three seconds or more, first at ${clock(places[0]!.fromMs)}.`,
    rule: `A pause of three seconds is noticed (${practice}).`,
    ifItStays: 'Nothing, where it is meant; else something was muted by mistake.',
  }),
  'one-side': () => ({
    says: 'One of the two channels is silent.',
    rule: `A voice belongs in the middle (${practice}).`,
    ifItStays: 'With earphones it is heard on one ear only.',
  }),
  antiphase: () => ({
    says: 'Left and right are out of phase: in mono they cancel each other out.',
    rule: `What is heard from one loudspeaker is both sides mixed (${practice}).`,
    ifItStays: 'On a phone and a small loudspeaker there is next to nothing to hear.',
  }),
  range: ({ rangeLu }) => ({
    says: `Soft and loud passages lie ${rangeLu.toFixed(1)} LU apart.`,
    rule: `Speech up to ${widestRangeLu} LU is understood on the road (${practice}; measured as EBU Tech 3342 says).`,
    ifItStays: 'In a car or a train the soft passages are lost.',
  }),
  'dual-mono': () => ({
    says: 'Both channels carry the same sound.',
    rule: `Speech alone holds up at 64 kbit/s in one channel (${practice}).`,
    ifItStays: 'The file is twice as large as it need be. It sounds no worse.',
  }),
  before: told => told,
}

/** The sentences of a finding. */
export const findingWords = ({ code, figures, places }: Finding): FindingWords =>
  (words[code] as Words<FindingCode>)(figures as never, places)
