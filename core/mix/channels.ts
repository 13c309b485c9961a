/**
 * Interleaved frames of one channel or two, with the channels of a mix: one is heard on both sides as loud as alone, two in one as
 * their mean, or one of them.
 */
export async function* withChannels(
  chunks: AsyncGenerator<Float32Array>,
  own: 1 | 2,
  to: 1 | 2,
  side?: 'left' | 'right',
): AsyncGenerator<Float32Array> {
  try {
    if (own === to) yield* chunks
    else for await (const chunk of chunks) yield own === 1 ? onBothSides(chunk) : inOne(chunk, side)
  } finally {
    await chunks.return(undefined)
  }
}

function onBothSides(sound: Float32Array): Float32Array {
  const both = new Float32Array(sound.length * 2)
  for (let i = 0; i < sound.length; i++) both[2 * i] = both[2 * i + 1] = sound[i]!
  return both
}

function inOne(sound: Float32Array, side?: 'left' | 'right'): Float32Array {
  const [left, right] = side ? [Number(side === 'left'), Number(side === 'right')] : [0.5, 0.5]
  const one = new Float32Array(sound.length / 2)
  for (let i = 0; i < one.length; i++) one[i] = left * sound[2 * i]! + right * sound[2 * i + 1]!
  return one
}
