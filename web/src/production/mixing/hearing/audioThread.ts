import type { MixerFailure, MixerRequest, Played, Turn, TurnBegins } from './messages'
import playerAddress from './player.worklet?worker&url'

interface Listeners {
  onPlayed(played: Played): void
  onFailure(turn: number): void
}

/** What plays: it is there from the first press on, as a browser lets nothing sound before. */
interface Player {
  context: AudioContext
  node: AudioWorkletNode
}

export type AudioThread = ReturnType<typeof openAudioThread>

/** A worker that mixes, and an audio thread that plays what it makes; between them the window has no part. */
export function openAudioThread(sampleRateHz: number, { onPlayed, onFailure }: Listeners) {
  let mixer: Worker | null = null
  let player: Promise<Player> | null = null
  /** The end of the worker’s line for the audio thread; what is made before there is one waits in it. */
  let line: MessagePort | null = null
  let begins: TurnBegins | null = null
  /** A machine may be slow to start and to stop: one after the other. */
  let last: Promise<unknown> = Promise.resolve()

  function openMixer(): Worker {
    const worker = new Worker(new URL('./mixer.worker.ts', import.meta.url), { type: 'module' })
    const { port1, port2 } = new MessageChannel()
    line = port2
    worker.postMessage({ port: port1 } satisfies MixerRequest, [port1])
    worker.onmessage = ({ data }: MessageEvent<MixerFailure>) => onFailure(data.turn)
    return worker
  }

  async function openPlayer(): Promise<Player> {
    const context = new AudioContext({ sampleRate: sampleRateHz, latencyHint: 'interactive' })
    await context.audioWorklet.addModule(playerAddress)
    const node = new AudioWorkletNode(context, 'mix-player', { numberOfInputs: 0, outputChannelCount: [2] })
    node.connect(context.destination)
    node.port.onmessage = ({ data }: MessageEvent<Played>) => onPlayed(data)
    if (begins) node.port.postMessage(begins)
    node.port.postMessage({ port: line }, [line!])
    return { context, node }
  }

  const inTurn = <T>(act: () => Promise<T>): Promise<T> => {
    const done = last.then(act)
    last = done.catch(() => undefined)
    return done
  }
  async function tell(message: unknown): Promise<void> {
    if (player) (await player).node.port.postMessage(message)
  }

  return {
    /** Has a mix made, to be heard once so many frames of the turn before were. */
    mix(turn: Turn, afterFrames: number): void {
      mixer ??= openMixer()
      begins = { turn: turn.turn, afterFrames }
      void tell(begins)
      mixer.postMessage(turn satisfies MixerRequest)
    },
    /** Plays what is there, and goes on as more comes. */
    resume: (): Promise<void> =>
      inTurn(async () => {
        player ??= openPlayer()
        await (await player).context.resume()
      }),
    /** What is there stays, to go on with. */
    pause: (): Promise<void> => inTurn(async () => (await player)?.context.suspend()),
    /** What is there is not wanted any more. */
    drop(): void {
      void tell({ stop: true })
    },
    close: (): Promise<void> =>
      inTurn(async () => {
        mixer?.terminate()
        await (await player)?.context.close()
      }),
  }
}
