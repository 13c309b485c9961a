import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'

export class Job extends Model<InferAttributes<Job>, InferCreationAttributes<Job>> {
  declare id: string
  declare kind: string
  declare payload: Record<string, string>
  declare state: CreationOptional<'open' | 'done' | 'failed' | 'cancelled'>
  /** What the job works on: a file's or an episode's id. */
  declare subject: CreationOptional<string | null>
  declare showId: CreationOptional<string | null>
  /** From 0 to 1. */
  declare progress: CreationOptional<number>
  /** When the current try began. */
  declare begunAt: CreationOptional<Date | null>
  /** Tries that began, and those of them that ended with an error. */
  declare attempts: CreationOptional<number>
  declare failures: CreationOptional<number>
  declare runAfter: Date
  /** Of the jobs that are due, the one whose turn is earliest goes first. */
  declare turnAt: Date
  /** A process that took the job holds it until then; a job whose holder died is free after that. */
  declare heldUntil: CreationOptional<Date | null>
  declare error: CreationOptional<string | null>
  declare createdAt: Date
}

export function initJobs(sequelize: Sequelize): void {
  Job.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      kind: DataTypes.STRING,
      payload: DataTypes.JSON,
      state: DataTypes.STRING,
      subject: DataTypes.UUID,
      showId: DataTypes.UUID,
      progress: DataTypes.DOUBLE,
      begunAt: DataTypes.DATE(3),
      attempts: DataTypes.INTEGER.UNSIGNED,
      failures: { type: DataTypes.INTEGER.UNSIGNED, defaultValue: 0 },
      runAfter: DataTypes.DATE(3),
      turnAt: DataTypes.DATE(3),
      heldUntil: DataTypes.DATE(3),
      error: DataTypes.TEXT,
      createdAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'jobs' },
  )
}
