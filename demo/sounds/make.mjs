/**
 * Makes the demo's sounds: synthesised reed tones around synthesised speech, encoded small.
 * Needs espeak-ng and ffmpeg; the results are committed, so this runs only when a text changes: node demo/sounds/make.mjs,
 * for all of them, or those named: node demo/sounds/make.mjs br-37
 */
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

const here = fileURLToPath(new URL('.', import.meta.url))
const rate = 44_100

/** Notes as [start in beats, length in beats, semitones from A at 220 Hz]. */
const tunes = {
  workshop: { beat: 0.42, notes: [[0, 2, 0], [2, 1, 3], [3, 2, 7], [5, 1, 5], [6, 2, 3], [8, 1, 2], [9, 4, 0], [0, 6, -12], [6, 3, -9], [9, 4, -12]] },
  ferry: { beat: 0.5, notes: [[0, 3, 5], [3, 2, 7], [5, 3, 0], [8, 4, 5], [0, 5, -7], [5, 3, -12], [8, 4, -7]] },
}

const episodes = [
  ...['br-31', 'br-32', 'br-33', 'br-34', 'br-35', 'br-36', 'br-37'].map((name, index) => ({
    name, tune: 'workshop', voice: 'en-gb+f3', pitch: 42, ending: 'mp3', track: 31 + index,
    album: 'Bellows & Reeds', artist: 'Tove Aldermoor',
  })),
  { name: 'sf-4', tune: 'ferry', voice: 'en-gb+m3', pitch: 38, ending: 'm4a', track: 4, album: 'Slow Ferry', artist: 'Tove Aldermoor' },
  { name: 'sf-5', tune: 'ferry', voice: 'en-gb+m3', pitch: 38, ending: 'mp3', track: 5, album: 'Slow Ferry', artist: 'Tove Aldermoor' },
]

const titles = {
  'br-31': 'The harmonium that coughed',
  'br-32': 'A drawer full of reeds',
  'br-33': 'Wax, or the smell of a good morning',
  'br-34': 'The accordion under the stage',
  'br-35': 'Tuning by the ferry bell',
  'br-36': 'What the bellows remember',
  'br-37': 'A letter from a chapel',
  'sf-4': 'The morning boat',
  'sf-5': 'The last boat, with the lamps lit',
}

/** The one that waits to go out is as it left the recorder: too quiet, with silence at both ends. */
const unfinished = { 'br-37': ',volume=-6dB,adelay=2400:all=1,apad=pad_dur=5' }

/** A reed: a buzzing sum of partials, two reeds a little apart, that swells and dies like a drawn bellows. */
function reed(samples, startSeconds, seconds, semitones) {
  const hertz = 220 * 2 ** (semitones / 12)
  const from = Math.round(startSeconds * rate)
  for (let i = 0; i < seconds * rate && from + i < samples.length; i++) {
    const t = i / rate
    const swell = Math.min(1, t / 0.09) * Math.min(1, (seconds - t) / 0.16)
    let value = 0
    for (let partial = 1; partial <= 9; partial++) {
      const strength = 1 / partial ** 1.25
      value += strength * Math.sin(2 * Math.PI * hertz * partial * t) + 0.7 * strength * Math.sin(2 * Math.PI * (hertz + 1.7) * partial * t)
    }
    samples[from + i] += value * swell * 0.055
  }
}

function tuneWav({ beat, notes }) {
  const seconds = Math.max(...notes.map(([start, length]) => start + length)) * beat + 0.3
  const samples = new Float32Array(Math.ceil(seconds * rate))
  for (const [start, length, semitones] of notes) reed(samples, start * beat, length * beat, semitones)
  const wav = Buffer.alloc(44 + samples.length * 2)
  wav.write('RIFF', 0)
  wav.writeUInt32LE(36 + samples.length * 2, 4)
  wav.write('WAVEfmt ', 8)
  wav.writeUInt32LE(16, 16)
  wav.writeUInt16LE(1, 20)
  wav.writeUInt16LE(1, 22)
  wav.writeUInt32LE(rate, 24)
  wav.writeUInt32LE(rate * 2, 28)
  wav.writeUInt16LE(2, 32)
  wav.writeUInt16LE(16, 34)
  wav.write('data', 36)
  wav.writeUInt32LE(samples.length * 2, 40)
  samples.forEach((value, i) => wav.writeInt16LE(Math.round(Math.max(-1, Math.min(1, value)) * 32_767), 44 + i * 2))
  return wav
}

const work = mkdtempSync(join(tmpdir(), 'lake-letter-sounds-'))
for (const { name, tune, voice, pitch, ending, track, album, artist } of episodes.filter(({ name }) => process.argv.length < 3 || process.argv.includes(name))) {
  const voiceFile = join(work, `${name}.wav`)
  const tuneFile = join(work, `${tune}.wav`)
  writeFileSync(tuneFile, tuneWav(tunes[tune]))
  execFileSync('espeak-ng', ['-v', voice, '-s', '150', '-p', String(pitch), '-g', '4', '-f', join(here, 'spoken', `${name}.txt`), '-w', voiceFile])
  const codec = ending === 'm4a' ? ['-c:a', 'aac', '-b:a', '64k', '-movflags', '+faststart'] : ['-c:a', 'libmp3lame', '-b:a', '64k', '-id3v2_version', '3']
  execFileSync('ffmpeg', [
    '-v', 'error', '-y', '-i', tuneFile, '-i', voiceFile, '-i', tuneFile, '-i', join(here, '../artwork', `${album === 'Slow Ferry' ? 'slow-ferry' : 'bellows-and-reeds'}-small.jpg`),
    '-filter_complex', [
      '[0]apad=pad_dur=0.2[a]', `[1]aresample=${rate},volume=1.3,apad=pad_dur=0.6[b]`, '[2]afade=t=out:st=3:d=2.5[c]',
      `[a][b][c]concat=n=3:v=0:a=1,alimiter=limit=0.85${unfinished[name] ?? ''}[out]`,
    ].join(';'),
    '-map', '[out]', '-map', '3:v', '-c:v', 'copy', '-disposition:v', 'attached_pic', '-ac', '1', '-ar', String(rate), ...codec,
    '-metadata', `title=${titles[name]}`, '-metadata', `artist=${artist}`, '-metadata', `album=${album}`, '-metadata', `track=${track}`,
    join(here, `${name}.${ending}`),
  ])
}
rmSync(work, { recursive: true })
