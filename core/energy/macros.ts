import { fixed } from '../units/round'
import { OLDER_YEARS } from '../cautions'

/** kcal in a gram (general factors of Atwater). */
export const KCAL_PER_G = { fat: 9, protein: 4, carbohydrate: 4, alcohol: 7 } as const
export type Nutrient = keyof typeof KCAL_PER_G
export const NUTRIENTS = ['protein', 'fat', 'carbohydrate', 'alcohol'] as const

/** Usual shares of a day's kcal (common practice). */
export const USUAL = { fat: [0.2, 0.35], carbohydrate: [0.45, 0.65] } as const

/** g a kg and day, and of what kilograms. */
export interface GramRange {
  low: number
  high: number
  of: 'weight' | 'lean'
  why: string
}

/** What a person's protein is looked up by. */
export interface ProteinFacts {
  ageYears: number
  athlete: boolean
  bmi: number | null
  /** Eats less than is used. */
  deficit: boolean
  kidney: boolean
  /** Whether lean mass is known. */
  leanKnown: boolean
}

/** From this BMI on protein is counted by fat-free mass. */
const LEAN_BMI = 30

/** Most protein with kidney disease, g a kg of body weight. */
export const KIDNEY_PROTEIN = 0.8

/**
 * Usual protein of a person, g a kg and day: adults 0.8 to 1.0, from 65 years 1.0 to 1.2, athletes 1.2 to 2.0, athletes who
 * eat less than they use 2.3 to 3.1 a kg of fat-free mass; by fat-free mass from a BMI of 30 on; with kidney disease 0.8 at
 * most (general practice of dietetics; ACSM, Academy and Dietitians of Canada 2016; recalled).
 */
export function usualProtein(facts: ProteinFacts): GramRange {
  const { ageYears, athlete, bmi, deficit, kidney, leanKnown } = facts
  if (kidney) return { low: 0.6, high: KIDNEY_PROTEIN, of: 'weight', why: 'kidney disease' }
  const of = leanKnown && bmi !== null && bmi >= LEAN_BMI ? ('lean' as const) : ('weight' as const)
  if (athlete && deficit && leanKnown)
    return { low: 2.3, high: 3.1, of: 'lean', why: 'athletes eating less than they use' }
  if (athlete) return { low: 1.2, high: 2, of, why: 'athletes' }
  return ageYears >= OLDER_YEARS
    ? { low: 1, high: 1.2, of, why: 'from 65 years' }
    : { low: 0.8, high: 1, of, why: 'adults' }
}

/**
 * Usual carbohydrate by training a day, g a kg of body weight: light 3 to 5, about an hour 5 to 7, one to three hours 6 to 10,
 * over four hours 8 to 12 (ACSM, Academy and Dietitians of Canada 2016; recalled).
 */
export function usualCarbohydrate(hoursADay: number): GramRange {
  const of = 'weight' as const
  if (hoursADay >= 4) return { low: 8, high: 12, of, why: 'over four hours of training a day' }
  if (hoursADay > 1.25) return { low: 6, high: 10, of, why: 'one to three hours of training a day' }
  if (hoursADay >= 0.75) return { low: 5, high: 7, of, why: 'about an hour of training a day' }
  return { low: 3, high: 5, of, why: 'light training' }
}

/** How a day is made up. */
export interface MacroWish {
  kcal: number
  weightKg: number
  leanKg: number | null
  protein: { perKg: number; of: 'weight' | 'lean' }
  /** Share of the day's kcal, 0 to 1; where carbohydrate is set by weight, fat takes the rest instead. */
  fatShare: number
  /** The rest, or grams a kg of weight (endurance). */
  carbohydrate: { kind: 'rest' } | { kind: 'per-kg'; perKg: number }
  /** Grams a day, 0 without. */
  alcoholG?: number
  /** The person's usual protein; with kidney disease its upper end is not passed. */
  usual?: GramRange
  kidney?: boolean
}

/** Grams and share of the day by nutrient. Shares add up to 1, kcal to the day's. */
export interface Macros {
  grams: Record<Nutrient, number>
  kcal: Record<Nutrient, number>
  share: Record<Nutrient, number>
}

/** What a wish comes to: a mix, or why there is none and what would have to give. */
export type MacroAnswer = { mix: Macros; notes: string[] } | { mix: null; problem: string }

/** kcal a sum of parts may part from its whole by computing alone. */
const ROUNDING_KCAL = 1e-6

const round = (value: number) => Math.round(value).toLocaleString('en-US')

/**
 * Splits a day's kcal: protein by weight or lean mass, fat by its share and carbohydrate the rest, or carbohydrate by
 * weight and fat the rest. What cannot be is said, never clipped.
 * @example 2,000 kcal, 70 kg, protein 1.6 g/kg, fat 30 %: protein 112 g, fat 66.7 g, carbohydrate 238 g
 */
export function splitDay(wish: MacroWish): MacroAnswer {
  const { kcal, weightKg, leanKg, protein, fatShare, carbohydrate, alcoholG = 0 } = wish
  if (protein.of === 'lean' && leanKg === null)
    return { mix: null, problem: 'Protein by lean mass needs a measured lean mass: take body weight instead.' }
  const proteinPerWeight = (protein.perKg * (protein.of === 'lean' ? (leanKg ?? 0) : weightKg)) / weightKg
  if (wish.kidney && proteinPerWeight > KIDNEY_PROTEIN + 1e-9)
    return {
      mix: null,
      problem: `Kidney disease: protein up to ${KIDNEY_PROTEIN} g a kg of body weight. More is for their doctor to say.`,
    }
  const grams: Record<Nutrient, number> = {
    protein: protein.perKg * (protein.of === 'lean' ? (leanKg ?? 0) : weightKg),
    fat: carbohydrate.kind === 'rest' ? (fatShare * kcal) / KCAL_PER_G.fat : 0,
    carbohydrate: carbohydrate.kind === 'per-kg' ? carbohydrate.perKg * weightKg : 0,
    alcohol: alcoholG,
  }
  const energyOf = (nutrient: Nutrient) => grams[nutrient] * KCAL_PER_G[nutrient]
  const used = NUTRIENTS.reduce((sum, one) => sum + energyOf(one), 0)
  const over = used - kcal
  if (over > ROUNDING_KCAL) {
    const named = NUTRIENTS.filter((one) => grams[one] > 0).map((one) => `${one} ${round(energyOf(one))}`)
    return {
      mix: null,
      problem: `That comes to ${round(used)} kcal (${named.join(', ')}) in a day of ${round(kcal)}: ${round(Math.max(over, 1))} too many. ${givesOf(wish, over)}`,
    }
  }
  const left = Math.max(0, -over)
  if (carbohydrate.kind === 'rest') grams.carbohydrate = left / KCAL_PER_G.carbohydrate
  else grams.fat = left / KCAL_PER_G.fat
  const energy = Object.fromEntries(NUTRIENTS.map((one) => [one, energyOf(one)])) as Macros['kcal']
  const share = Object.fromEntries(NUTRIENTS.map((one) => [one, energy[one] / kcal])) as Macros['share']
  const mix = { grams, kcal: energy, share }
  return { mix, notes: notesOf(wish, mix) }
}

/** What would have to give for a mix to be. */
function givesOf({ kcal, weightKg, carbohydrate, protein, leanKg }: MacroWish, over: number): string {
  if (carbohydrate.kind === 'per-kg') {
    // Beside the least fat that is usual.
    const left = carbohydrate.perKg - (over + USUAL.fat[0] * kcal) / KCAL_PER_G.carbohydrate / weightKg
    return left > 0
      ? `Carbohydrate of ${fixed(left, 1)} g/kg would fit beside 20 % of fat, or a day of ${round((kcal + over) / (1 - USUAL.fat[0]))} kcal.`
      : `Protein alone leaves no room: a day of ${round((kcal + over) / (1 - USUAL.fat[0]))} kcal would hold it beside 20 % of fat.`
  }
  const by = protein.of === 'lean' ? (leanKg ?? weightKg) : weightKg
  const perKg = protein.perKg - over / KCAL_PER_G.protein / by
  return perKg > 0
    ? `Protein of ${fixed(perKg, 1)} g/kg would fit with no carbohydrate at all, or a day of ${round(kcal + over)} kcal.`
    : `Fat alone is too much: lower its share, or take a day of ${round(kcal + over)} kcal.`
}

function notesOf({ fatShare, carbohydrate, usual, weightKg, leanKg }: MacroWish, { share, grams }: Macros): string[] {
  const notes: string[] = []
  const perKg = usual && grams.protein / (usual.of === 'lean' ? (leanKg ?? weightKg) : weightKg)
  if (usual && perKg !== undefined && (perKg < usual.low - 0.05 || perKg > usual.high + 0.05))
    notes.push(
      `Protein is ${fixed(perKg, 1)} g a kg of ${usual.of === 'lean' ? 'lean mass' : 'body weight'}; usual for ${usual.why}: ${usual.low} to ${usual.high}.`,
    )
  const percent = (value: number) => `${Math.round(100 * value)} %`
  const fat = carbohydrate.kind === 'rest' ? fatShare : share.fat
  if (fat < USUAL.fat[0]) notes.push(`Fat is ${percent(fat)} of the day, under the usual 20 to 35 %.`)
  if (fat > USUAL.fat[1]) notes.push(`Fat is ${percent(fat)} of the day, over the usual 20 to 35 %.`)
  const rest = share.carbohydrate
  if (rest < USUAL.carbohydrate[0]) notes.push(`Carbohydrate is ${percent(rest)}, under the usual 45 to 65 %.`)
  if (rest > USUAL.carbohydrate[1]) notes.push(`Carbohydrate is ${percent(rest)}, over the usual 45 to 65 %.`)
  return notes
}
