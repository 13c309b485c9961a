import sharp, { type Sharp } from 'sharp'
import { provisionalArtwork } from '@core/show/provisionalArtwork'
import { artworkPlace, type Lettering, sharePicture } from '@core/site/sharePicture'
import { seedsOf, seedsSidePx } from '@core/site/seeds'
import { houseLettering } from './lettering'
import type { Drawn, PictureAnswer, PictureTask } from './tasks'

// A program of its own, one task after the other: a picture that takes too long or too much is ended with it.

let letters: Lettering | undefined
const mostPixels = 100_000_000
sharp.cache(false)
sharp.concurrency(1)

// A picture that breaks off is refused, not drawn as far as it goes.
const opened = (bytes: Uint8Array): Sharp => sharp(bytes, { limitInputPixels: mostPixels, failOn: 'truncated' })
const onPaper = (picture: Sharp): Sharp => picture.flatten({ background: '#ffffff' }).toColourspace('srgb')

async function drawnAs(picture: Sharp): Promise<Drawn> {
  const { data, info } = await picture
    .jpeg({ quality: 90, chromaSubsampling: '4:4:4' })
    .toBuffer({ resolveWithObject: true })
  return { bytes: data, widthPx: info.width, heightPx: info.height }
}

/** The largest first; the others are drawn from it. */
async function squares(largest: Sharp, sidesPx: readonly number[]): Promise<Drawn[]> {
  const [side = 1, ...smaller] = sidesPx
  const {
    data,
    info: { width, height, channels },
  } = await onPaper(largest.resize(side, side)).raw().toBuffer({ resolveWithObject: true })
  const whole = sharp(data, { raw: { width, height, channels } })
  return Promise.all([side, ...smaller].map(px => drawnAs(whole.clone().resize(px, px))))
}

async function answer(task: PictureTask): Promise<PictureAnswer> {
  if (task.kind === 'provisional')
    return { drawn: await squares(sharp(Buffer.from(provisionalArtwork(task.seed))), task.sidesPx) }
  if (task.kind === 'share') {
    letters ??= houseLettering()
    const { left, top, sidePx } = artworkPlace
    const artwork = await opened(task.artwork).resize(sidePx, sidePx).toBuffer()
    const picture = sharp(Buffer.from(sharePicture(task.facts, letters))).composite([{ input: artwork, left, top }])
    return { drawn: [await drawnAs(onPaper(picture))] }
  }
  if (task.kind === 'webp') {
    const small = opened(task.bytes).resize(task.mostPx, task.mostPx, { fit: 'inside', withoutEnlargement: true })
    const { data, info } = await onPaper(small).webp({ quality: 80 }).toBuffer({ resolveWithObject: true })
    return { drawn: [{ bytes: data, widthPx: info.width, heightPx: info.height }] }
  }
  if (task.kind === 'seeds') {
    const small = opened(task.bytes).resize(seedsSidePx, seedsSidePx, { fit: 'fill' })
    return { seeds: seedsOf(await onPaper(small).removeAlpha().raw().toBuffer()) }
  }
  if (task.kind === 'inside') {
    return {
      drawn: [
        await drawnAs(
          onPaper(
            opened(task.bytes)
              .autoOrient()
              .resize(task.mostPx, task.mostPx, { fit: 'inside', withoutEnlargement: true }),
          ),
        ),
      ],
    }
  }
  if (task.kind === 'squares') {
    const { left, top, sidePx } = task.crop
    return {
      drawn: await squares(
        opened(task.bytes).autoOrient().extract({ left, top, width: sidePx, height: sidePx }),
        task.sidesPx,
      ),
    }
  }
  const {
    autoOrient: { width, height },
    format,
    space,
    hasAlpha,
  } = await opened(task.bytes).metadata()
  const isTransparent = hasAlpha && !(await opened(task.bytes).stats()).isOpaque
  return { size: { widthPx: width, heightPx: height, format, space, isTransparent } }
}

process.on('message', (task: PictureTask) => {
  void answer(task)
    .catch((error: Error): PictureAnswer => ({ failure: error.message }))
    .then(said => process.send!(said))
})
process.once('disconnect', () => process.exit(0))
