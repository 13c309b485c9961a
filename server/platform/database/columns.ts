import type { InferAttributes, Model } from 'sequelize'

/** Some columns of a row, as plain data that can be copied; a row itself has them behind getters. */
export type Columns<Row extends Model, Name extends keyof InferAttributes<Row>> = Pick<InferAttributes<Row>, Name>
