import { fixed } from '../units/round'
import { KCAL_PER_G, NUTRIENTS, type Nutrient } from './macros'

/** A food's label as printed, a serving. */
export interface Label {
  /** Grams of a serving; null: not given. */
  servingG: number | null
  /** Servings eaten. */
  servings: number
  /** kcal a serving as stated; null: not given. */
  statedKcal: number | null
  /** Grams by nutrient a serving. */
  grams: Record<Nutrient, number>
}

/** What a label says. */
export interface LabelReading {
  /** kcal eaten by nutrient, and together, by grams. */
  kcal: Record<Nutrient, number>
  totalKcal: number
  /** kcal eaten as stated; null: not stated. */
  statedKcal: number | null
  /** Share of each nutrient in the stated kcal, or in the sum where none is stated; 0 to 1. */
  share: Record<Nutrient, number>
  /** Sum by grams against the stated kcal, less 1; null: not stated. */
  off: number | null
  notes: string[]
}

/** From so much apart a label is worth a look (rounding and fibre explain less). */
const WORTH_A_LOOK = 0.2

/** Why a label cannot be read, by field; empty: it can. */
export function labelProblems({
  servingG,
  servings,
  statedKcal,
  grams,
}: Label): Partial<Record<Nutrient | 'servings' | 'statedKcal' | 'servingG', string>> {
  const problems: ReturnType<typeof labelProblems> = {}
  if (!(servings > 0)) problems.servings = 'Servings have to be above zero.'
  const together = NUTRIENTS.reduce((sum, one) => sum + grams[one], 0)
  if (servingG !== null && together > servingG + 0.5)
    problems.servingG = `The nutrients weigh ${fixed(together, 0)} g together, more than the serving of ${servingG} g: check both.`
  if (statedKcal !== null && !(statedKcal > 0)) problems.statedKcal = 'Stated kcal have to be above zero.'
  for (const one of NUTRIENTS) if (grams[one] < 0) problems[one] = 'Grams cannot be below zero.'
  return problems
}

/**
 * Reads a label: kcal and share by nutrient (9, 4, 4 and 7 kcal a gram). A share is kcal of the nutrient in all kcal, not
 * a percent of a daily value.
 * @example 12 g fat in 250 kcal: 43 %
 */
export function readLabel({ servings, statedKcal, grams }: Label): LabelReading {
  const kcal = Object.fromEntries(
    NUTRIENTS.map((one) => [one, grams[one] * KCAL_PER_G[one] * servings]),
  ) as LabelReading['kcal']
  const totalKcal = NUTRIENTS.reduce((sum, one) => sum + kcal[one], 0)
  const stated = statedKcal === null ? null : statedKcal * servings
  const base = stated ?? totalKcal
  const share = Object.fromEntries(
    NUTRIENTS.map((one) => [one, base > 0 ? kcal[one] / base : 0]),
  ) as LabelReading['share']
  const off = stated === null ? null : totalKcal / stated - 1
  const notes =
    off !== null && Math.abs(off) > WORTH_A_LOOK
      ? [
          `The grams come to ${Math.round(totalKcal)} kcal, ${Math.round(100 * Math.abs(off))} % ${off > 0 ? 'over' : 'under'} what is stated: rounding and fibre explain less. Worth a look.`,
        ]
      : []
  return { kcal, totalKcal, statedKcal: stated, share, off, notes }
}
