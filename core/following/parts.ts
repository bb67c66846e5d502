import { dayNumber } from '../calendar'
import type { SpanEnd } from '../composition/end-figures'
import { caliperOf, dayOf } from '../composition/facts'
import { ASSUMED_ERRORS, type ErrorModel } from '../error/model'
import { valueOf } from '../readings'
import { isFold } from '../sites'

/** A sum of squares or products with how many it is of. */
interface Pooled {
  sum: number
  count: number
}

/** What one client's folds say about where error comes from, all as squared shares of the fold. */
export interface PartsEvidence {
  /** Of one reading, from the first two of a visit. */
  reading: Pooled
  /** Of a visit's value about the straight way between the visits beside it. */
  total: Pooled
  /** What two folds of a visit have in common of that. */
  common: Pooled
}

/** Nothing said. */
export const NO_PARTS: PartsEvidence = {
  reading: { sum: 0, count: 0 },
  total: { sum: 0, count: 0 },
  common: { sum: 0, count: 0 },
}

/** Parts of the error learnt, as shares of a fold (standard deviations). */
export interface LearntParts {
  /** One reading. */
  reading: number
  /** The mark found anew. */
  mark: number
  /** The day, common to all folds. */
  day: number
  /** Clients it stands on. */
  clients: number
}

/** Fewest clients, and fold-visits between two others, from which the parts are told apart at all. */
const FEWEST_CLIENTS = 5
const FEWEST_VISITS = 150

const add = (pool: Pooled, value: number) => {
  pool.sum += value
  pool.count += 1
}

/**
 * What a client's check-ins say about the parts of the error: readings from repeats within a visit, the total from how
 * far each visit lies off the straight way between its neighbours, the day from what the folds of a visit share of that.
 * @param visits oldest first
 */
export function partsEvidence(visits: readonly SpanEnd[]): PartsEvidence {
  const found: PartsEvidence = {
    reading: { ...NO_PARTS.reading },
    total: { ...NO_PARTS.total },
    common: { ...NO_PARTS.common },
  }
  const newest = visits.at(-1)
  if (!newest) return found
  for (const { result } of visits)
    for (const { site, live } of result.session.sites) {
      const [first, second] = live.map(valueOf)
      if (!isFold(site) || first === undefined || second === undefined) continue
      const mean = (first + second) / 2
      if (mean > 0) add(found.reading, ((first - second) / mean) ** 2 / 2)
    }
  for (let i = 1; i < visits.length - 1; i += 1) {
    const three = [visits[i - 1], visits[i], visits[i + 1]] as [SpanEnd, SpanEnd, SpanEnd]
    // Another hand would take the way between its neighbours somewhere else.
    const hands = new Set(three.map(({ facts }) => `${facts.assessorId ?? ''} ${caliperOf(facts) ?? ''}`))
    const [a, b, c] = three.map(({ facts }) => dayNumber(dayOf(facts))) as [number, number, number]
    if (hands.size > 1 || !(a < b && b < c)) continue
    const weight = (c - b) / (c - a)
    // Variance of the middle less the weighted mean of its neighbours, in units of one visit's.
    const times = 1 + weight ** 2 + (1 - weight) ** 2
    const off = newest.result.session.sites.flatMap(({ site }) => {
      const values = three.map(({ result }) => result.values[site])
      const [x, y, z] = values
      if (!isFold(site) || x === undefined || y === undefined || z === undefined) return []
      const mean = (x + y + z) / 3
      return mean > 0 ? [(y - weight * x - (1 - weight) * z) / mean] : []
    })
    off.forEach((one, j) => {
      add(found.total, one ** 2 / times)
      for (const other of off.slice(j + 1)) add(found.common, (one * other) / times)
    })
  }
  return found
}

/** What all clients of a studio say together. */
export interface PooledParts extends PartsEvidence {
  /** Clients whose visits say something of the total. */
  clients: number
}

const PARTS = ['reading', 'total', 'common'] as const

/** Pools what clients say: once for a studio, so that each client's page takes only its own out again. */
export function poolParts(all: Iterable<PartsEvidence>): PooledParts {
  const pool: PooledParts = {
    reading: { sum: 0, count: 0 },
    total: { sum: 0, count: 0 },
    common: { sum: 0, count: 0 },
    clients: 0,
  }
  for (const one of all) {
    for (const part of PARTS) {
      pool[part].sum += one[part].sum
      pool[part].count += one[part].count
    }
    if (one.total.count > 0) pool.clients += 1
  }
  return pool
}

/**
 * Tells the parts apart: what is left over goes to the marks, none is below zero. Null: too little to tell.
 * @param without what one of the pool said, who is not to be judged by it
 */
export function learnParts(pool: PooledParts, without: PartsEvidence = NO_PARTS): LearntParts | null {
  const left = (part: (typeof PARTS)[number]): Pooled => ({
    sum: pool[part].sum - without[part].sum,
    count: pool[part].count - without[part].count,
  })
  const [reading, total, common] = [left('reading'), left('total'), left('common')]
  const clients = pool.clients - (without.total.count > 0 ? 1 : 0)
  if (clients < FEWEST_CLIENTS || total.count < FEWEST_VISITS || common.count === 0 || reading.count === 0) return null
  const one = reading.sum / reading.count
  const visit = total.sum / total.count
  const day = Math.min(visit, Math.max(0, common.sum / common.count))
  // Two readings a visit.
  const mark = Math.max(0, visit - day - one / 2)
  return { reading: Math.sqrt(one), mark: Math.sqrt(mark), day: Math.sqrt(day), clients }
}

/** An error model whose folds err by the learnt parts: what apportions a total that was learnt by itself. */
export function modelOfParts({ reading, mark, day }: LearntParts, model: ErrorModel = ASSUMED_ERRORS): ErrorModel {
  const share = Math.max(reading, 1e-4)
  return { ...model, folds: { floor: 0, share }, markFactor: mark / share, dayShare: day }
}
