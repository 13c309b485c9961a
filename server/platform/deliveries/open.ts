import { readFileSync } from 'node:fs'
import type { Sequelize } from 'sequelize'
import { type ProgramList, programList, shippedList } from '@core/counting/programs'
import type { Clock } from '../clock'
import type { Configuration } from '../configuration'
import { dayKeys } from './dayKeys'
import type { DeliveryEntry, Noted } from './lines'
import { listenerReader } from './listener'
import { deliveryLog } from './log'
import { openPlaces } from './places'

/** The log of deliveries with all that it goes by: the keys of the days, the list of programs, the table of places. */
export function openDeliveries(
  { placesFile, programsFile }: Pick<Configuration, 'placesFile' | 'programsFile'>,
  database: Sequelize,
  clock: Clock,
  report: (error: unknown) => void,
) {
  const programs = programsFile ? readPrograms(programsFile) : shippedList
  const places = openPlaces(placesFile, report)
  const keys = dayKeys(database, clock)
  const listeners = listenerReader(programs, places)
  return {
    askers: {
      programOf: listeners.programOf,
      /** An entry of what a log tells that has addresses. */
      async told({ address, ...entry }: Noted): Promise<DeliveryEntry> {
        return { ...entry, ...listeners.of(address, entry.agent, await keys.of(entry.at)), isCoarse: false }
      },
      programsDated: programs.dated,
      placesMadeAt: places.madeAt,
    },
    deliveries: deliveryLog(database, clock, { keys, listeners }, report),
  }
}
export type Askers = ReturnType<typeof openDeliveries>['askers']

/** Throws an Error that names the file and what is wrong with it: a house that counts by another list than it was told counts wrong. */
function readPrograms(file: string): ProgramList {
  try {
    return programList.parse(JSON.parse(readFileSync(file, 'utf8')))
  } catch (error) {
    throw new Error(`PROGRAMS_FILE=${file}: this is no list of programs. ${String(error)}`, { cause: error })
  }
}
