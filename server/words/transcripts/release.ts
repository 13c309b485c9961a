import { Op, type Transaction } from 'sequelize'
import type { Timeline } from '@core/audio/timeline'
import type { ReleasedTranscript } from '@core/episode/snapshot'
import type { Cue } from '@core/transcript/cue'
import { deliveredCues } from '@core/transcript/edit'
import { formatsOf } from '@core/transcript/formats'
import { Transcript } from './models'

/** An episode's transcripts as they would go out now, by the clock of the sound that is delivered. */
export async function transcriptsNow(
  episodeId: string,
  timeline: Timeline,
  transaction?: Transaction,
): Promise<{ row: Transcript; content: Transcript['content']; told: ReleasedTranscript }[]> {
  const rows = await Transcript.findAll({
    where: { episodeId, removedAt: null },
    order: [
      ['isSpoken', 'DESC'],
      ['language', 'ASC'],
    ],
    transaction,
  })
  return rows.flatMap(row => {
    // Until somebody has read what a machine wrote, what was there before goes out, if anything.
    const written = row.isUnread ? row.beforeContent : row.content
    if (!written) return []
    const content = { ...written, cues: deliveredCues(written.cues, timeline) }
    const { language, isSpoken } = row
    const told = { language, isSpoken: Boolean(isSpoken), formats: formatsOf(content) }
    return content.cues.length > 0 ? [{ row, content, told }] : []
  })
}

/** What is said in released episodes, each in the language that is spoken there. */
export async function releasedWords(episodeIds: readonly string[]): Promise<Map<string, Cue[]>> {
  const rows = await Transcript.findAll({
    where: { episodeId: [...episodeIds], isSpoken: true, released: { [Op.not]: null } },
    attributes: ['episodeId', 'released'],
  })
  return new Map(rows.map(({ episodeId, released }) => [episodeId, released!.cues]))
}

/** Which of some episodes have transcripts, or had them when they last went out. */
export async function spokenFor(episodeIds: readonly string[], transaction: Transaction): Promise<Set<string>> {
  const rows = await Transcript.findAll({
    where: { episodeId: [...episodeIds] },
    attributes: ['episodeId'],
    group: ['episodeId'],
    raw: true,
    transaction,
  })
  return new Set(rows.map(({ episodeId }) => episodeId))
}

/** Lets an episode's transcripts stand in the feed as they are now; answers what the feed tells of them. */
export async function sendTranscripts(
  episodeId: string,
  timeline: Timeline,
  transaction: Transaction,
): Promise<ReleasedTranscript[]> {
  const going = await transcriptsNow(episodeId, timeline, transaction)
  await Transcript.update({ released: null }, { where: { episodeId }, transaction })
  for (const { row, content } of going)
    await Transcript.update({ released: content }, { where: { id: row.id }, transaction })
  return going.map(({ told }) => told)
}
