import type { Protocol } from '../protocols'
import { sessionState, type Reading } from '../readings'
import { isFold } from '../sites'
import { simulateFolds } from './assessor'
import type { Random } from './random'

/** An invented assessor or caliper: how one measures. Shares of the value. */
export interface SimulatedPen {
  id: string
  /** Reads this much too high: 0.05 is 5 %. */
  bias: number
  /** Error of one reading. */
  reading: number
  /** Error of a mark found anew. */
  mark: number
}

/** One person's folds, mm, and girths, cm, as they are. */
export type TrueValues = Readonly<Record<string, number>>

/** People whose folds differ from each other as people's do: invented, 6 to 40 mm. */
export function simulatePeople(random: Random, count: number, protocol: Protocol): TrueValues[] {
  return Array.from({ length: count }, () => {
    const size = Math.exp(0.35 * random.normal())
    return Object.fromEntries(
      protocol.sites.map((site) => [
        site,
        isFold(site)
          ? Math.min(45, Math.max(5, 16 * size * Math.exp(0.2 * random.normal())))
          : 60 * Math.exp(0.15 * random.normal()),
      ]),
    )
  })
}

/** A turn of a study: marks found anew, then read as the set's policy asks. */
export function simulateTurn(
  random: Random,
  { protocol, person, pen, startedAt }: { protocol: Protocol; person: TrueValues; pen: SimulatedPen; startedAt: Date },
): { readings: Reading[]; values: Record<string, number>; repeats: Record<string, number[]> } {
  const found = Object.fromEntries(
    protocol.sites.map((site) => {
      const truth = person[site] ?? 10
      // A girth's mark and hand are steadier than a fold's, as its readings are.
      const by = isFold(site) ? 1 : 0.2
      return [site, truth * (1 + by * pen.bias) * (1 + by * pen.mark * random.normal())]
    }),
  )
  const readings = simulateFolds(random, { protocol, trueFolds: found, technicalError: pen.reading, startedAt })
  const { sites } = sessionState(protocol, readings, [])
  return {
    readings,
    values: Object.fromEntries(sites.flatMap(({ site, value }) => (value === null ? [] : [[site, value]]))),
    repeats: Object.fromEntries(sites.map(({ site, live }) => [site, live.map(({ value }) => value)])),
  }
}
