import recorderAddress from './recorder.worklet?worker&url'
import type { Heard } from './takes'

/** A microphone that is open: as it hears, without what a browser would do to a voice on the telephone. */
export interface Microphone {
  sampleRateHz: number
  channels: number
  deviceId: string | null
  /** Has the one who speaks hear it, too. */
  setMonitored(is: boolean): void
  close(): Promise<void>
}

interface Listeners {
  onHeard(sound: Heard): void
  /** It was unplugged, or another program or the person took it away. */
  onGone(): void
}

/** Asks for a microphone, one that was chosen or the usual one. Throws the DOMException of the browser where there is none to be had. */
export async function openMicrophone(deviceId: string | null, { onHeard, onGone }: Listeners): Promise<Microphone> {
  const stream = await navigator.mediaDevices.getUserMedia({
    audio: {
      ...(deviceId && { deviceId: { exact: deviceId } }),
      echoCancellation: false,
      noiseSuppression: false,
      autoGainControl: false,
    },
  })
  const [track] = stream.getAudioTracks()
  const settings = track!.getSettings()
  const channels = Math.min(2, settings.channelCount ?? 1)
  const context = new AudioContext({ latencyHint: 'interactive' })
  try {
    await context.audioWorklet.addModule(recorderAddress)
    const source = new MediaStreamAudioSourceNode(context, { mediaStream: stream })
    const node = new AudioWorkletNode(context, 'recorder', {
      numberOfOutputs: 0,
      channelCount: channels,
      channelCountMode: 'explicit',
    })
    node.port.onmessage = ({ data }: MessageEvent<Heard>) => onHeard(data)
    source.connect(node)
    const monitor = new GainNode(context, { gain: 0 })
    source.connect(monitor).connect(context.destination)
    track!.onended = onGone
    await context.resume()
    return {
      sampleRateHz: context.sampleRate,
      channels,
      deviceId: settings.deviceId ?? null,
      setMonitored(is) {
        monitor.gain.value = is ? 1 : 0
      },
      async close() {
        track!.onended = null
        for (const each of stream.getTracks()) each.stop()
        await context.close()
      },
    }
  } catch (error) {
    for (const each of stream.getTracks()) each.stop()
    throw error
  }
}

/** The microphones that there are; without names until one was allowed. */
export const microphones = async (): Promise<MediaDeviceInfo[]> =>
  (await navigator.mediaDevices.enumerateDevices()).filter(({ kind }) => kind === 'audioinput')
