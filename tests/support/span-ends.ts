import { composeCheckin, type CheckinFacts, type SpanEnd } from '../../core/composition'
import type { SiteId } from '../../core/sites'
import { PROTOCOLS, type Protocol } from '../../core/protocols'
import { fold, weight } from './readings'

const seven = PROTOCOLS['laboratory-7']
/** Who is measured. */
export const person = { sex: 'female' as const, birthDate: '1992-03-14', heightCm: 174 }
/** Folds of the first visit, mm. */
export const THEN = [14, 13, 8, 10, 15, 20, 22]

export interface Visit {
  folds: number[]
  kg: number
  protocol?: Protocol
  more?: Partial<CheckinFacts>
  girths?: Partial<Record<SiteId, number>>
}

/** A visit in a month of 2026. */
export function end({ folds, kg, protocol = seven, more = {}, girths = {} }: Visit, month: string): SpanEnd {
  const sites = [...protocol.sites, ...(Object.keys(girths) as SiteId[])]
  const value = (site: SiteId, i: number) => folds[i] ?? girths[site] ?? 12
  const readings = [0, 1].flatMap((round) =>
    sites.map((site, i) => ({
      ...fold(site, value(site, i), round * 50 + i),
      unit: girths[site] === undefined ? ('mm' as const) : ('cm' as const),
    })),
  )
  const facts: CheckinFacts = {
    person,
    protocol: { ...protocol, sites },
    startedAt: `2026-${month}-01T17:00:00.000Z`,
    readings: [weight(kg), ...readings],
    strikes: [],
    ...more,
  }
  return { facts, result: composeCheckin(facts) }
}

/** The first visit's folds by a share. */
export const scaled = (share: number) => THEN.map((mm) => mm * share)

/** Visits a month apart, folds as a share of the first. */
export function course(visits: readonly (readonly [share: number, kg: number])[], more: Partial<CheckinFacts> = {}) {
  return visits.map(([share, kg], i) => {
    const day = new Date(Date.UTC(2026, 0, 5 + 28 * i)).toISOString().slice(0, 10)
    const own = end({ folds: scaled(share), kg, more: { startedAt: `${day}T17:00:00.000Z`, ...more } }, '01')
    return own
  })
}
/** So much more or less of everything by the last of some visits, steadily. */
export const steadily = (share: number, kg: number, count = 7) =>
  course(Array.from({ length: count }, (_, i) => [1 + (share * i) / (count - 1), 74 + (kg * i) / (count - 1)] as const))
