import type { IntakeChange } from './dynamic'

/*
 * Water of the first days of a change of intake: glycogen with the water it holds, and extracellular fluid, of the dynamic
 * model of Hall et al. 2011, Lancet 378:826 (recalled). Masses in kg, energies in kcal a day, time in days.
 */

/** Glycogen of a body at balance, kg, and the water a kilogram of it holds. */
const GLYCOGEN_KG = 0.5
const WATER_PER_GLYCOGEN = 2.7
/** Energy of a kilogram of glycogen: 17.6 MJ, as kcal. */
const KCAL_PER_KG_GLYCOGEN = 17_600 / 4.184
/** Share of what is eaten that is carbohydrate, at balance and after (our assumption). */
const CARBOHYDRATE_SHARE = 0.5
/** Sodium of a litre of extracellular fluid, mg; how fast a surplus leaves, mg a day a litre; what carbohydrate holds back, mg a day. */
const SODIUM_PER_LITRE = 3220
const SODIUM_LEAVES = 3000
const SODIUM_BY_CARBOHYDRATE = 4000
/** Sodium of a kcal eaten, mg: 3.4 g in 2,100 kcal in surveys of adults (recalled). */
const SODIUM_PER_KCAL = 1.6

/** How far people’s water answers apart from this, standard deviation as a share (our choice). */
export const WATER_SD = 0.35

/** What has changed since the start, kg. */
export interface Water {
  /** Dry glycogen. */
  glycogenKg: number
  /** Water held by it, and extracellular fluid. */
  fluidKg: number
}

/** Glycogen after some days of so much carbohydrate against balance: G' = (C - k G^2) / rho, in closed form. */
function glycogenAfter(from: number, carbohydrate: number, balance: number, days: number): number {
  const used = balance / GLYCOGEN_KG ** 2
  const end = Math.sqrt(Math.max(carbohydrate, 1e-6 * balance) / used)
  const way = Math.tanh((used * end * days) / KCAL_PER_KG_GLYCOGEN)
  return (end * (from + end * way)) / (end + from * way)
}

/**
 * Glycogen and fluid on some days of a course, as changes since its start.
 * @param change of intake against balance; holds from one whole day to the next
 * @param days rising, 0 or more
 * @example a man of 3,100 kcal who eats 500 less: about 0.6 kg of water and glycogen gone after a week
 */
export function waterCourse(change: IntakeChange, balanceKcal: number, days: readonly number[]): Water[] {
  const carbohydrateAtBalance = CARBOHYDRATE_SHARE * balanceKcal
  let [glycogen, fluid, day] = [GLYCOGEN_KG, 0, 0]
  return days.map((wanted) => {
    while (day < wanted - 1e-9) {
      const whole = Math.floor(day + 1e-9)
      const by = Math.min(wanted - day, whole + 1 - day)
      const eaten = Math.max(0, 1 + change(whole) / balanceKcal)
      const held = SODIUM_PER_KCAL * balanceKcal * (eaten - 1) - SODIUM_BY_CARBOHYDRATE * (1 - eaten)
      const end = held / SODIUM_LEAVES
      fluid = end + (fluid - end) * Math.exp((-SODIUM_LEAVES / SODIUM_PER_LITRE) * by)
      glycogen = glycogenAfter(glycogen, eaten * carbohydrateAtBalance, carbohydrateAtBalance, by)
      day += by
    }
    const stored = glycogen - GLYCOGEN_KG
    return { glycogenKg: stored, fluidKg: WATER_PER_GLYCOGEN * stored + fluid }
  })
}
