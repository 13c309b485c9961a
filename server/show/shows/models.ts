import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'
import type { Recipe } from '@core/audio/recipe'
import type { UsualSet } from '@core/mix/usualSet'
import type { Link, Person } from '@core/episode/fields'
import { barePattern } from '@core/episode/titlePattern'
import type { FeedFacts } from '@core/feed/facts'
import type { ShareTexts } from '@core/sharing/texts'
import type { SiteTheme } from '@core/site/siteTheme'
import type { Rhythm } from '@core/release/rhythm'

export class Show extends Model<InferAttributes<Show>, InferCreationAttributes<Show>> {
  declare id: string
  declare slug: string
  declare name: string
  declare description: string
  declare language: string
  declare author: string
  declare ownerEmail: string
  declare category: string
  declare subcategory: string | null
  declare explicit: boolean
  declare type: 'episodic' | 'serial'
  declare zone: string
  declare artworkId: string
  /** Drawn by the house, because nobody has brought one yet. */
  declare artworkIsProvisional: CreationOptional<boolean>
  declare podcastGuid: string
  /** How titles are put together for feed, page and tags; see core/episode/titlePattern. */
  declare titlePattern: CreationOptional<string>
  /** Clean HTML that a new episode's notes begin with; see core/notes/fill. */
  declare notesTemplate: CreationOptional<string>
  declare usualLinks: CreationOptional<Link[]>
  declare usualTags: CreationOptional<string[]>
  /** The people that a new episode begins with. */
  declare hosts: CreationOptional<Person[]>
  /** When the show usually goes out; null where nobody has said. */
  declare rhythm: CreationOptional<Rhythm | null>
  /** Zones in which most listeners are. */
  declare listenerZones: CreationOptional<string[]>
  /** What its feed says beside what every feed says, as far as somebody has said it. */
  declare feedFacts: CreationOptional<Partial<FeedFacts>>
  /** Whether it is only for its own listeners; the database takes it from the facts. */
  declare readonly isPrivate: CreationOptional<boolean>
  /** How the show's episodes are usually finished; null where nobody has said yet. */
  declare recipe: CreationOptional<Recipe | null>
  /** What its episodes usually begin and end with; null where nobody has said. */
  declare usualSet: CreationOptional<UsualSet | null>
  /** Grows whenever anything that the feed or the public pages tell has changed. */
  declare feedRevision: CreationOptional<number>
  declare feedChangedAt: Date
  /** How much of what was found in its feed must be mended. */
  declare feedFaults: CreationOptional<number>
  /** The host name that is the show's own; null where it lives at the house's. */
  declare hostName: CreationOptional<string | null>
  /** One that somebody says is the show's, and the word that proves it. */
  declare claimedDomain: CreationOptional<string | null>
  declare domainToken: CreationOptional<string | null>
  /** What it says of an episode elsewhere; null where that is what the house says. */
  declare shareTexts: CreationOptional<ShareTexts | null>
  /** How its pages look, how they did before, and how somebody is trying them; null where nobody has said. */
  declare theme: CreationOptional<SiteTheme | null>
  declare formerTheme: CreationOptional<SiteTheme | null>
  declare triedTheme: CreationOptional<SiteTheme | null>
  /** Whether listeners may write to its episodes, and what makes of their addresses something that tells them apart only. */
  declare takesComments: CreationOptional<boolean>
  declare commentSalt: CreationOptional<string | null>
  /** Of what is tried. */
  declare themeVersion: CreationOptional<number>
  declare version: CreationOptional<number>
  declare createdAt: Date
}

export function initShows(sequelize: Sequelize): void {
  Show.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      slug: DataTypes.STRING,
      name: DataTypes.STRING,
      description: DataTypes.TEXT,
      language: DataTypes.STRING,
      author: DataTypes.STRING,
      ownerEmail: DataTypes.STRING,
      category: DataTypes.STRING,
      subcategory: DataTypes.STRING,
      explicit: DataTypes.BOOLEAN,
      type: DataTypes.STRING,
      zone: DataTypes.STRING,
      artworkId: DataTypes.CHAR(64),
      artworkIsProvisional: { type: DataTypes.BOOLEAN, defaultValue: false },
      podcastGuid: DataTypes.UUID,
      titlePattern: { type: DataTypes.STRING, defaultValue: barePattern },
      notesTemplate: { type: DataTypes.TEXT('medium'), defaultValue: '' },
      usualLinks: { type: DataTypes.JSON, defaultValue: [] },
      usualTags: { type: DataTypes.JSON, defaultValue: [] },
      hosts: { type: DataTypes.JSON, defaultValue: [] },
      rhythm: DataTypes.JSON,
      listenerZones: { type: DataTypes.JSON, defaultValue: [] },
      feedFacts: { type: DataTypes.JSON, defaultValue: {} },
      isPrivate: DataTypes.BOOLEAN,
      recipe: DataTypes.JSON,
      usualSet: DataTypes.JSON,
      feedRevision: DataTypes.BIGINT.UNSIGNED,
      feedChangedAt: DataTypes.DATE(3),
      feedFaults: DataTypes.SMALLINT.UNSIGNED,
      hostName: DataTypes.STRING,
      claimedDomain: DataTypes.STRING,
      domainToken: DataTypes.CHAR(43),
      shareTexts: DataTypes.JSON,
      takesComments: { type: DataTypes.BOOLEAN, defaultValue: false },
      commentSalt: DataTypes.CHAR(32),
      theme: DataTypes.JSON,
      formerTheme: DataTypes.JSON,
      triedTheme: DataTypes.JSON,
      themeVersion: DataTypes.INTEGER.UNSIGNED,
      version: DataTypes.INTEGER.UNSIGNED,
      createdAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'shows' },
  )
}
