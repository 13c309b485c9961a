import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize'
import type { Recipe } from '@core/audio/recipe'
import { type EpisodeText, unsetText } from '@core/episode/fields'
import type { Snapshot } from '@core/episode/snapshot'
import type { Status } from '@core/release/status'
import { AudioFile } from '../../media/files/models'
import type { Tags } from '../../media/files/tags'
import type { FinishReport } from '../../media/sound/tasks'
import { Show } from '../shows/models'

export class Episode extends Model<InferAttributes<Episode>, InferCreationAttributes<Episode>> {
  declare id: string
  declare showId: string
  /** Made once, with the episode, and never again. */
  declare guid: string
  /** Made at the first release, and then kept. */
  declare slug: CreationOptional<string | null>
  declare title: CreationOptional<string>
  declare number: CreationOptional<number | null>
  declare season: CreationOptional<number | null>
  declare kind: CreationOptional<EpisodeText['kind']>
  declare hook: CreationOptional<string>
  declare notes: string
  declare tags: CreationOptional<EpisodeText['tags']>
  declare people: CreationOptional<EpisodeText['people']>
  declare links: CreationOptional<EpisodeText['links']>
  declare chapters: CreationOptional<EpisodeText['chapters']>
  declare soundbites: CreationOptional<EpisodeText['soundbites']>
  declare mix: CreationOptional<EpisodeText['mix']>
  declare artworkId: CreationOptional<string | null>
  declare extras: CreationOptional<EpisodeText['extras']>
  declare status: CreationOptional<Status>
  declare releaseAt: CreationOptional<Date | null>
  declare releaseZone: CreationOptional<string | null>
  /** When it leaves the feed by itself, and in which zone that was meant. */
  declare retireAt: CreationOptional<Date | null>
  declare retireZone: CreationOptional<string | null>
  /** Whether its page and its audio still answer once it has left the feed. */
  declare keepsPage: CreationOptional<boolean>
  /** The text that the feed carries; what is written after the release waits until it is sent, too. */
  declare released: CreationOptional<Snapshot | null>
  /** Whether text or delivered file are others by now than the released ones. */
  declare isChanged: CreationOptional<boolean>
  /** How the audio is finished; null where it goes out as it was uploaded. */
  declare recipe: CreationOptional<Recipe | null>
  /** `done` only while the finished file is the one that file and recipe come to. */
  declare finishing: CreationOptional<'none' | 'working' | 'done' | 'failed'>
  /** What the finished file was made of and with. */
  declare finishedWith: CreationOptional<{ fileId: string; recipe: Recipe; tags: Tags; report: FinishReport } | null>
  declare finishProblem: CreationOptional<{ title: string; detail: string; todo: string } | null>
  /** Of everything but the sound. */
  declare version: CreationOptional<number>
  /** Grows with each change of its transcripts; and as it was when they were last sent. */
  declare transcriptsVersion: CreationOptional<number>
  declare sentTranscripts: CreationOptional<number>
  /** Of source, recipe and what came of them. */
  declare soundVersion: CreationOptional<number>
  declare createdAt: Date
  declare updatedAt: Date
  declare deletedAt: CreationOptional<Date | null>

  declare show?: NonAttribute<Show>
  declare files?: NonAttribute<EpisodeFile[]>
}

/** What a file is to an episode. Several may be the same to it, in an order. */
export type FileRole = 'source' | 'finished' | 'released' | 'mixed'

export class EpisodeFile extends Model<InferAttributes<EpisodeFile>, InferCreationAttributes<EpisodeFile>> {
  declare episodeId: string
  declare role: FileRole
  declare position: CreationOptional<number>
  declare fileId: string
  declare file?: NonAttribute<AudioFile>
}

/** A file that a released episode delivered before it was replaced; its address answers until then. */
export class PastDelivery extends Model<InferAttributes<PastDelivery>, InferCreationAttributes<PastDelivery>> {
  declare episodeId: string
  declare fileId: string
  declare until: Date
  declare file?: NonAttribute<AudioFile>
}

export function initEpisodes(sequelize: Sequelize): void {
  Episode.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      showId: DataTypes.UUID,
      guid: DataTypes.UUID,
      slug: DataTypes.STRING,
      title: DataTypes.STRING,
      number: DataTypes.INTEGER.UNSIGNED,
      season: DataTypes.INTEGER.UNSIGNED,
      kind: DataTypes.STRING,
      hook: { type: DataTypes.STRING(4000), defaultValue: unsetText.hook },
      notes: DataTypes.TEXT('medium'),
      tags: { type: DataTypes.JSON, defaultValue: unsetText.tags },
      people: { type: DataTypes.JSON, defaultValue: unsetText.people },
      links: { type: DataTypes.JSON, defaultValue: unsetText.links },
      chapters: DataTypes.JSON,
      soundbites: { type: DataTypes.JSON, defaultValue: unsetText.soundbites },
      mix: DataTypes.JSON,
      artworkId: DataTypes.CHAR(64),
      extras: { type: DataTypes.JSON, defaultValue: unsetText.extras },
      status: DataTypes.STRING,
      releaseAt: DataTypes.DATE(3),
      releaseZone: DataTypes.STRING,
      retireAt: DataTypes.DATE(3),
      retireZone: DataTypes.STRING,
      keepsPage: { type: DataTypes.BOOLEAN, defaultValue: false },
      released: DataTypes.JSON,
      isChanged: { type: DataTypes.BOOLEAN, defaultValue: false },
      recipe: DataTypes.JSON,
      finishing: { type: DataTypes.STRING, defaultValue: 'none' },
      finishedWith: DataTypes.JSON,
      finishProblem: DataTypes.JSON,
      version: { type: DataTypes.INTEGER.UNSIGNED, defaultValue: 1 },
      transcriptsVersion: { type: DataTypes.INTEGER.UNSIGNED, defaultValue: 0 },
      sentTranscripts: { type: DataTypes.INTEGER.UNSIGNED, defaultValue: 0 },
      soundVersion: { type: DataTypes.INTEGER.UNSIGNED, defaultValue: 1 },
      createdAt: DataTypes.DATE(3),
      updatedAt: DataTypes.DATE(3),
      deletedAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'episodes' },
  )
  PastDelivery.init(
    {
      episodeId: { type: DataTypes.UUID, primaryKey: true },
      fileId: { type: DataTypes.UUID, primaryKey: true },
      until: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'past_deliveries' },
  )
  PastDelivery.belongsTo(AudioFile, { as: 'file', foreignKey: 'fileId' })
  Episode.belongsTo(Show, { as: 'show', foreignKey: 'showId' })
  EpisodeFile.init(
    {
      episodeId: { type: DataTypes.UUID, primaryKey: true },
      role: { type: DataTypes.STRING, primaryKey: true },
      position: { type: DataTypes.SMALLINT.UNSIGNED, primaryKey: true, defaultValue: 0 },
      fileId: DataTypes.UUID,
    },
    { sequelize, tableName: 'episode_files' },
  )
  EpisodeFile.belongsTo(AudioFile, { as: 'file', foreignKey: 'fileId' })
  EpisodeFile.belongsTo(Episode, { as: 'episode', foreignKey: 'episodeId' })
  Episode.hasMany(EpisodeFile, { as: 'files', foreignKey: 'episodeId' })
}
