/**
 * When two readings of a site agree.
 * - absolute: at most `limit` apart, in the reading's unit
 * - percent: at most `limit` percent of their mean apart, or `least` where that is more: one mark of the instrument
 * - either: absolute up to a mean of `above`, percent beyond it
 */
export type Agreement =
  | { kind: 'absolute'; limit: number }
  | { kind: 'percent'; limit: number; least?: number }
  | { kind: 'either'; limit: number; above: number; percent: number }

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

/**
 * Reading policies: common practice of the schools; the kinanthropometry limits after ISAK accreditation practice
 * (recalled). Folds in mm, girths and height in cm.
 */
export const POLICIES = {
  laboratory: {
    id: 'laboratory',
    name: 'Two readings within 2 mm, further rounds where they differ',
    base: 2,
    most: 4,
    agree: { kind: 'absolute', limit: 2 },
    join: 'closest-pair',
  },
  'laboratory-strict': {
    id: 'laboratory-strict',
    name: 'Two readings within 1 mm, further rounds where they differ',
    base: 2,
    most: 4,
    agree: { kind: 'absolute', limit: 1 },
    join: 'closest-pair',
  },
  'laboratory-large': {
    id: 'laboratory-large',
    name: 'Two readings within 2 mm, within 10 % above 20 mm',
    base: 2,
    most: 4,
    agree: { kind: 'either', limit: 2, above: 20, percent: 10 },
    join: 'closest-pair',
  },
  kinanthropometry: {
    id: 'kinanthropometry',
    name: 'Two readings within 5 %, a third where they differ',
    base: 2,
    most: 3,
    agree: { kind: 'percent', limit: 5 },
    join: 'mean-or-median',
  },
  'kinanthropometry-learner': {
    id: 'kinanthropometry-learner',
    name: 'Two readings within 10 %, a third where they differ',
    base: 2,
    most: 3,
    agree: { kind: 'percent', limit: 10 },
    join: 'mean-or-median',
  },
  'kinanthropometry-girth': {
    id: 'kinanthropometry-girth',
    name: 'Two girths within 1 %, a third where they differ',
    base: 2,
    most: 3,
    agree: { kind: 'percent', limit: 1 },
    join: 'mean-or-median',
  },
  'kinanthropometry-girth-learner': {
    id: 'kinanthropometry-girth-learner',
    name: 'Two girths within 2 %, a third where they differ',
    base: 2,
    most: 3,
    agree: { kind: 'percent', limit: 2 },
    join: 'mean-or-median',
  },
  'contest-prep': {
    id: 'contest-prep',
    name: 'One reading',
    base: 1,
    most: 1,
    agree: null,
    join: 'mean',
  },
  'contest-prep-twice': {
    id: 'contest-prep-twice',
    name: 'Two readings, mean',
    base: 2,
    most: 2,
    agree: null,
    join: 'mean',
  },
  home: { id: 'home', name: 'Two readings, mean', base: 2, most: 2, agree: null, join: 'mean' },
  tape: {
    id: 'tape',
    name: 'Two readings, a third where they are over 1 cm apart',
    base: 2,
    most: 3,
    agree: { kind: 'absolute', limit: 1 },
    join: 'mean-or-median',
  },
  'tape-percent': {
    id: 'tape-percent',
    name: 'Two readings, a third where they are over 1 % apart',
    base: 2,
    most: 3,
    agree: { kind: 'percent', limit: 1 },
    join: 'mean-or-median',
  },
  height: {
    id: 'height',
    name: 'Three trials within 0.5 cm, mean',
    base: 3,
    most: 5,
    agree: { kind: 'absolute', limit: 0.5 },
    join: 'mean',
  },
} as const satisfies Record<string, Policy>

export type PolicyId = keyof typeof POLICIES

/** A policy read on a scale of some marks: nobody is asked for a third reading for a difference of one mark. */
export function withMarks(policy: Policy, mark: number | undefined): Policy {
  const { agree } = policy
  return mark !== undefined && agree?.kind === 'percent' ? { ...policy, agree: { ...agree, least: mark } } : policy
}

/** The policy with this id. */
export function policyOf(id: PolicyId): Policy {
  return POLICIES[id]
}
