import { ASSUMED_WORLD, type MeasuringWorld } from '../simulate/world'
import type { VerdictKind } from '../following'
import { everReal, firstReal, looksAt, medianOf, oldRuleFirst, oldRuleSays, only, openTrial, shareOf } from './trial'
import { STEADY_LOSS } from './worlds'

/*
 * Two kinds of client beside each other, looked at again and again: one who does not change and one who loses fat
 * steadily. What the old rule calls moved, and what the odds say: the page "Is it real?" in small.
 */

/** Kilograms of fat a week that the steady loss of the worlds stands for. */
const STEADY_KG = 0.2
/** How many of each kind are shown one by one. */
const SHOWN = 6
/** Beyond so many assumed errors the old rule called a change real: 95 % for one comparison. */
const OLD_Z = 1.96

/** What is looked at. */
export interface Looking {
  world?: MeasuringWorld
  /** Fat the losing clients lose, kg a week. */
  kgAWeek: number
  weeksApart: number
  /** Check-ins of each client. */
  looks: number
  /** Clients of each kind. */
  clients: number
  seed: number
}

/** One client as a coach would have seen them. */
export interface PersonLooked {
  /** Weeks of the check-ins, and the sum measured, mm. */
  weeks: number[]
  sums: number[]
  /** From the second check-in on. */
  looks: { old: boolean; change: number; low: number; high: number; odds: number; verdict: VerdictKind }[]
}

/** One kind of client. */
export interface KindLooked {
  /** Share told "real" at some look. */
  everOld: number
  everReal: number
  /** Check-in at which the middle one of them is first told; null: over half never are. */
  medianOld: number | null
  medianReal: number | null
  people: PersonLooked[]
}

/**
 * Simulates a studio of which every other client loses fat steadily, measured through the reading rules, its error
 * learnt as a studio learns it.
 * @returns what each kind is told
 */
export function lookAgainAndAgain({ world = ASSUMED_WORLD, kgAWeek, weeksApart, looks, clients, seed }: Looking): {
  unchanged: KindLooked
  losing: KindLooked
} {
  const loss = (STEADY_LOSS * kgAWeek) / STEADY_KG
  const studio = openTrial(
    {
      world,
      weeksApart,
      looks,
      clients: 2 * clients,
      seed,
      client: (place) => (place % 2 === 1 ? { course: (week) => Math.max(0.3, 1 - loss * week) } : {}),
    },
    ['sum'],
  )
  const kind = (rest: 0 | 1): KindLooked => {
    const own = only(studio, (place) => place % 2 === rest)
    const seen = looksAt(own, ['sum'])
    const old = oldRuleFirst(own, OLD_Z)
    return {
      everOld: shareOf(old, (first) => first !== null),
      everReal: everReal(seen),
      medianOld: medianOf(old),
      medianReal: medianOf(firstReal(seen)),
      people: own.ends.slice(0, SHOWN).map((ends, c) => {
        const says = oldRuleSays(ends, OLD_Z)
        return {
          weeks: ends.map((_, i) => i * weeksApart),
          sums: ends.map(({ result }) => result.sumMm ?? NaN),
          looks: (seen[c] ?? []).flatMap(({ sum }, i) =>
            sum
              ? [
                  {
                    old: says[i] ?? false,
                    change: sum.change,
                    low: sum.low,
                    high: sum.high,
                    odds: sum.odds,
                    verdict: sum.verdict,
                  },
                ]
              : [],
          ),
        }
      }),
    }
  }
  return { unchanged: kind(0), losing: kind(1) }
}
