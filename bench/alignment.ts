import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { isTimeDoubtful } from '@core/transcript/doubtful'
import { runSound } from '@server/media/sound/run'
import { mixedSpeech, share, spokenParagraphs, spokenSentences } from '@server/words/transcripts/speech.fixture'

const minutes = 60

/** An hour of speech with known times, laid over by its script: time against real time, and by how much sentences begin elsewhere. */
export async function benchAlignment(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'lake-letter-bench-'))
  try {
    const some = spokenParagraphs('br-31', 'br-32', 'br-33', 'br-34', 'br-35', 'br-36', 'br-37').flat()
    const parts = spokenSentences(some, folder)
    const places: number[] = []
    // The same sentences again and again, each time in another order, so that none is where it was.
    for (let round = 0, ms = 0; ms < minutes * 60_000; round++)
      for (let at = 0; at < some.length && ms < minutes * 60_000; at++) {
        const place = (at * (2 * round + 1)) % some.length
        places.push(place)
        ms += parts[place]!.length / 16 + 500
      }
    const all = places.map(place => parts[place]!)
    const { path, beginsMs, durationMs } = mixedSpeech(all, [...all.keys()], folder, 'hour')
    const from = performance.now()
    const aligned = await runSound(
      {
        kind: 'align',
        source: { path, sampleRateHz: 16_000, channels: 1, junkBytes: 0 },
        expectedMs: durationMs,
        script: {
          texts: places.map(place => some[place]!),
          speakers: places.map(() => null),
          pinnedMs: places.map(() => null),
          voice: 'en-gb',
        },
        folder,
      },
      { signal: new AbortController().signal, progress: () => undefined },
      { serverDir: 'dist/server' },
    )
    const took = performance.now() - from
    const errors = aligned.map(({ fromMs }, at) => Math.abs(fromMs - beginsMs.get(at)!))
    console.log(
      `${(durationMs / 60_000).toFixed(0)} min of speech laid, time against real time: ${(took / durationMs).toFixed(3)} (${(took / 1000).toFixed(0)} s)`,
    )
    console.log(
      `  of ${errors.length} sentences half begin within ${share(errors, 0.5).toFixed(0)} ms, 90 % within ${share(errors, 0.9).toFixed(0)} ms, 95 % within ${share(errors, 0.95).toFixed(0)} ms, 99 % within ${share(errors, 0.99).toFixed(0)} ms`,
    )
    const doubtful = aligned.map(isTimeDoubtful)
    const far = errors.flatMap((error, at) => (error > 500 ? [at] : []))
    console.log(
      `  it says that it is not sure of ${doubtful.filter(Boolean).length}; of the ${far.length} that begin farther away than 500 ms, of ${far.filter(at => doubtful[at]).length}`,
    )
  } finally {
    rmSync(folder, { recursive: true })
  }
}
