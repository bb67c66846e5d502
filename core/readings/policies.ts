/** When two readings of a site agree: at most `limit` apart, absolute (in the reading's unit) or in percent of their mean. */
export interface Agreement {
  kind: 'absolute' | 'percent'
  limit: number
}

/** How a school takes and joins repeated readings. */
export interface Policy {
  id: string
  name: string
  /** Readings every site gets. */
  base: number
  /** Readings a site gets at most. */
  most: number
  /** Null: repeats are not compared. */
  agree: Agreement | null
  /** How agreeing readings become one value. */
  join: 'closest-pair' | 'mean-or-median' | 'mean'
}

/** Reading policies; common practice of the schools, the kinanthropometry limits after ISAK accreditation practice (recalled). */
export const POLICIES = {
  laboratory: {
    id: 'laboratory',
    name: 'Two readings within 2 mm, further rounds where they differ',
    base: 2,
    most: 4,
    agree: { kind: 'absolute', limit: 2 },
    join: 'closest-pair',
  },
} as const satisfies Record<string, Policy>

export type PolicyId = keyof typeof POLICIES

/** The policy with this id. */
export function policyOf(id: PolicyId): Policy {
  return POLICIES[id]
}
