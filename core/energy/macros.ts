/** kcal in a gram (general factors of Atwater). */
export const KCAL_PER_G = { fat: 9, protein: 4, carbohydrate: 4, alcohol: 7 } as const
export type Nutrient = keyof typeof KCAL_PER_G
export const NUTRIENTS = ['protein', 'fat', 'carbohydrate', 'alcohol'] as const

/** Usual amounts: protein and carbohydrate g a kg, fat as share of kcal (common practice). */
export const USUAL = {
  protein: { everybody: 0.8, athletes: [1.2, 1.7], dieting: 2.2 },
  fat: [0.2, 0.35],
  carbohydrate: [0.45, 0.65],
  endurance: [6, 10],
} as const

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
      ? `Carbohydrate of ${left.toFixed(1)} g/kg would fit beside 20 % of fat, or a day of ${round((kcal + over) / (1 - USUAL.fat[0]))} kcal.`
      : `Protein alone leaves no room: a day of ${round((kcal + over) / (1 - USUAL.fat[0]))} kcal would hold it beside 20 % of fat.`
  }
  const by = protein.of === 'lean' ? (leanKg ?? weightKg) : weightKg
  const perKg = protein.perKg - over / KCAL_PER_G.protein / by
  return perKg > 0
    ? `Protein of ${perKg.toFixed(1)} g/kg would fit with no carbohydrate at all, or a day of ${round(kcal + over)} kcal.`
    : `Fat alone is too much: lower its share, or take a day of ${round(kcal + over)} kcal.`
}

function notesOf({ fatShare, carbohydrate }: MacroWish, { share }: Macros): string[] {
  const notes: string[] = []
  const percent = (value: number) => `${Math.round(100 * value)} %`
  const fat = carbohydrate.kind === 'rest' ? fatShare : share.fat
  if (fat < USUAL.fat[0]) notes.push(`Fat is ${percent(fat)} of the day, under the usual 20 to 35 %.`)
  if (fat > USUAL.fat[1]) notes.push(`Fat is ${percent(fat)} of the day, over the usual 20 to 35 %.`)
  const rest = share.carbohydrate
  if (rest < USUAL.carbohydrate[0]) notes.push(`Carbohydrate is ${percent(rest)}, under the usual 45 to 65 %.`)
  if (rest > USUAL.carbohydrate[1]) notes.push(`Carbohydrate is ${percent(rest)}, over the usual 45 to 65 %.`)
  return notes
}
