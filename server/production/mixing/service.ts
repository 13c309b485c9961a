import { createHash } from 'node:crypto'
import type { Transaction } from 'sequelize'
import type { Sound } from '@contract/sound'
import { mixType } from '@core/audio/delivery'
import type { Mark } from '@core/chapters/marks'
import { moveMarks } from '@core/episode/moveMarks'
import { filesOfMix, isOfNewerHouse, longestMixMs, type MixDocument } from '@core/mix/document'
import { layoutOf, type MixLayout } from '@core/mix/layout'
import { type Before, movedTo } from '@core/mix/moved'
import { clock as asTime } from '@core/words/amounts'
import type { Scope } from '../../people/access/scope'
import { episodeChanges } from '../../show/episodes/change'
import type { Episode } from '../../show/episodes/models'
import { fileIdOf } from '../../show/episodes/roles'
import { episodeService } from '../../show/episodes/service'
import { sourceChanged } from '../../show/episodes/sourceChanged'
import { Show } from '../../show/shows/models'
import { fileKeeper } from '../../media/files/keeper'
import { AudioFile } from '../../media/files/models'
import edition from '../../media/sound/mixed?edition'
import { badInput } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'

type Named = Pick<AudioFile, 'id' | 'fingerprint' | 'durationMs' | 'sampleRateHz' | 'channels' | 'chapters' | 'address'>

/** The rate of a mix is that of the best of its files, and no higher than this: nothing is delivered with more. */
const mostHz = 48_000

/** Putting together: what is written of pieces and beds becomes the sound of the episode. */
export function mixingService(
  platform: Pick<Platform, 'database' | 'clock' | 'configuration' | 'jobs' | 'events' | 'media'>,
) {
  const { changeEpisode } = episodeChanges(platform)
  const episodes = episodeService(platform)
  const keeper = fileKeeper(platform)

  return {
    /**
     * Makes the mix as it is written the source of its episode; chapters and soundbites go with what is heard. Throws `bad-input`
     * where it cannot be heard as it is written.
     */
    async take(scope: Scope, { version, soundVersion }: { version: number; soundVersion: number }): Promise<Sound> {
      await changeEpisode(scope, { version, soundVersion }, async (episode, transaction) => {
        const mix = needWhole(episode.mix)
        const named = await filesNamed(mix, episode.showId, transaction)
        const layout = laidOut(mix, named)
        if (layout.durationMs <= 0) throw badInput('text.mix.pieces', mix.pieces.length, 'Something is to be heard.')
        if (layout.durationMs > longestMixMs)
          throw badInput('text.mix', asTime(layout.durationMs), `At most ${asTime(longestMixMs)} long.`)
        const file = await keeper.keep(
          {
            showId: episode.showId,
            name: 'mix',
            type: mixType,
            bytes: 0,
            soundFromBytes: null,
            soundToBytes: null,
            codec: 'mix',
            bitRateBps: 0,
            durationMs: Math.round(layout.durationMs),
            sampleRateHz: Math.min(mostHz, Math.max(...[...named.values()].map(({ sampleRateHz }) => sampleRateHz))),
            channels: Math.min(2, Math.max(...[...named.values()].map(({ channels }) => channels))),
            fingerprint: fingerprintOf(mix, named),
            tags: { title: null, artist: null, album: null, track: null, year: null },
            chapters: chaptersIn(layout, named),
            findings: [],
            pictureId: null,
            origin: 'mix',
            mix,
          },
          [],
          transaction,
        )
        // What could not be rendered before may be by now.
        if (file.measuring === 'failed') await file.update({ measuring: 'waiting' }, { transaction })
        await keeper.measure(file, transaction)
        const before = await soundBefore(episode, transaction)
        const show = await Show.findByPk(episode.showId, { transaction, rejectOnEmpty: true })
        return {
          ...sourceChanged(episode, show, file),
          ...(before && { fields: moveMarks(episode, movedTo(before, layout)), act: 'filled in' as const }),
        }
      })
      return episodes.sound(scope)
    },
  }
}

function needWhole(mix: MixDocument | null): MixDocument {
  if (!mix) throw badInput('text.mix', mix, 'Pieces that it is put together of.')
  if (isOfNewerHouse(mix))
    throw badInput(
      'text.mix.version',
      mix.version,
      'It was put together by a newer version of Lake Letter: go on there.',
    )
  if (mix.pieces.length === 0) throw badInput('text.mix.pieces', 0, 'At least one piece.')
  return mix
}

const laidOut = (mix: MixDocument, named: ReadonlyMap<string, Named>): MixLayout =>
  layoutOf(mix, fileId => named.get(fileId)?.durationMs ?? 0)

const toMix = ['id', 'fingerprint', 'durationMs', 'sampleRateHz', 'channels', 'chapters', 'address'] as const

/** Throws `bad-input` for the first part whose file cannot be mixed. */
async function filesNamed(mix: MixDocument, showId: string, transaction: Transaction): Promise<Map<string, Named>> {
  const files = await AudioFile.findAll({
    where: { id: filesOfMix(mix), showId },
    attributes: [...toMix, 'origin'],
    transaction,
  })
  const named = new Map(files.filter(({ origin }) => origin !== 'mix').map(file => [file.id, file]))
  for (const list of ['pieces', 'beds'] as const)
    for (const [n, { fileId }] of mix[list].entries()) {
      const field = `text.mix.${list}.${n}.fileId`
      const file = named.get(fileId)
      if (!file) throw badInput(field, fileId, 'A file of this show’s shelf: it may have been deleted.')
      if (file.address) throw badInput(field, file.address, 'A file that is here: upload what lives elsewhere.')
    }
  return named
}

/** The same mix of the same files is rendered once. */
const fingerprintOf = (mix: MixDocument, named: ReadonlyMap<string, Named>): string =>
  createHash('sha256')
    .update(JSON.stringify([edition, mix, filesOfMix(mix).map(id => named.get(id)!.fingerprint)]))
    .digest('hex')

/** The chapters that the files of its pieces bring, as far as they are heard. */
const chaptersIn = ({ pieces }: MixLayout, named: ReadonlyMap<string, Named>): Mark[] =>
  pieces.flatMap(({ piece, timeline, atMs }) =>
    named
      .get(piece.fileId)!
      .chapters.filter(({ fromMs }) => timeline.keeps(fromMs))
      .map(mark => ({ ...mark, fromMs: Math.round(atMs + timeline.toDelivered(mark.fromMs)) })),
  )

/** By what clock its chapters are told until now; null without a source. */
async function soundBefore(episode: Episode, transaction: Transaction): Promise<Before | null> {
  const sourceId = fileIdOf(episode, 'source')
  const source = sourceId ? await AudioFile.findByPk(sourceId, { transaction }) : null
  if (!source?.mix) return source && { fileId: source.id }
  const files = await AudioFile.findAll({
    where: { id: filesOfMix(source.mix) },
    attributes: [...toMix],
    transaction,
  })
  return laidOut(source.mix, new Map(files.map(file => [file.id, file])))
}
