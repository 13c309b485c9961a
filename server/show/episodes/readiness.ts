import { literal } from 'sequelize'
import { deliverableTypes } from '@core/audio/delivery'
import { type Hindrance, hindrancesOf } from '@core/release/readiness'
import type { Episode } from './models'
import { deliveredRole, fileIn } from './roles'

/** What keeps an episode from going out at this moment. It comes with its files. */
export function hindrancesNow(episode: Episode): Hindrance[] {
  const source = fileIn(episode, 'source')
  const isFinished = deliveredRole(episode) === 'finished'
  return hindrancesOf({
    title: episode.title,
    source: source && { type: source.type, isReachable: Boolean(source.reachable) },
    finish: episode.recipe && (isFinished ? 'done' : episode.finishing === 'done' ? 'none' : episode.finishing),
  })
}

/**
 * The same for the database, as far as it is about audio: a title cannot be taken from what is scheduled. Each subquery is one for
 * a value: an EXISTS the database would turn into a join with a table of all files of the house.
 */
export const canGoOut = literal(`(
  (\`Episode\`.recipe IS NULL AND IFNULL((SELECT 1 FROM episode_files u JOIN files f ON f.id = u.file_id
    WHERE u.episode_id = \`Episode\`.id AND u.role = 'source' AND f.reachable AND f.type IN (${deliverableTypes.map(type => `'${type}'`).join(', ')}) LIMIT 1), 0))
  OR (\`Episode\`.recipe IS NOT NULL AND \`Episode\`.finishing = 'done'
    AND IFNULL((SELECT 1 FROM episode_files u WHERE u.episode_id = \`Episode\`.id AND u.role = 'finished' LIMIT 1), 0)))`)
