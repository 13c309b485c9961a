import { zodResolver } from '@primevue/forms/resolvers/zod'
import type { z } from 'zod'
import type { Fault } from '@contract/problem'

interface Checked {
  errors: Record<string, { message: string }[]>
}

/** What the contract finds wrong with the values of a form, the first fault of each field, before anything is sent. */
export async function faultsOf(schema: z.ZodType, values: Record<string, unknown>): Promise<Fault[]> {
  const { errors } = (await zodResolver(schema)({ values })) as Checked
  return Object.entries(errors).flatMap(([field, found]) =>
    found[0] ? [{ field, value: String(values[field] ?? ''), rule: found[0].message }] : [],
  )
}
