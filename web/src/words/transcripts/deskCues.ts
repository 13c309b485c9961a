import { computed } from 'vue'
import type { Stretch } from '@core/audio/measurement'
import { pausesOf } from '@core/audio/pauses'
import { snapped } from '@core/audio/snap'
import { type CueEdge, heardAt, moveEdge } from '@core/transcript/edit'
import { usePlaying } from '../../production/sound/playing'
import { useSound } from '../../production/sound/sound'
import { useWaveforms } from '../../production/sound/waveforms'
import { useTranscript } from './transcript'

/** The cues of the open transcript together with the sound that they are said in. */
export function useDeskCues() {
  const transcript = useTranscript()
  const sounds = useSound()
  const waves = useWaveforms()
  const playing = usePlaying()

  const heardId = computed(() => transcript.cues[heardAt(transcript.cues, playing.atMs)]?.id)
  /** Where nobody speaks; null as long as that is not known. */
  const pauses = computed(() => {
    const id = sounds.sound?.source?.id
    const waveform = id === undefined ? undefined : waves.waveforms[id]
    return waveform ? pausesOf(waveform) : null
  })
  const edges = computed(() => ({
    fromMs: (pauses.value ?? []).map(({ toMs }) => toMs),
    toMs: (pauses.value ?? []).map(({ fromMs }) => fromMs),
  }))

  /** Moves an edge of a cue to a moment, or to where speech begins or ends close to it, as close as what is seen lets one mean. */
  function drag(id: string, edge: CueEdge, ms: number, { fromMs, toMs }: Stretch): void {
    put(id, edge, snapped(ms, edges.value[edge], (toMs - fromMs) / stretchesPerView))
  }
  const put = (id: string, edge: CueEdge, ms: number): void =>
    transcript.change(moveEdge(transcript.cues, id, edge, ms), `${edge} of ${id}`)

  return { heardId, pauses, drag, put }
}

/** A pause draws a moment to itself from as far as this part of what is seen. */
const stretchesPerView = 120
