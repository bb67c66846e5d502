/*
 * The dynamic model of body weight of Hall et al. 2011, Lancet 378:826 (recalled): fat and lean tissue here, glycogen and
 * water in water.ts beside it. Energies in
 * kcal a day, masses in kg, time in days.
 */

import { waterCourse } from './water'

/** Energy a kilogram of fat and of lean tissue holds, kcal. */
export const KCAL_PER_KG_FAT = 9440
export const KCAL_PER_KG_LEAN = 1807
/** Rule of thumb: kcal a pound, as kcal a kilogram. */
export const KCAL_PER_KG_RULE = 3500 / 0.45359237

/** Forbes' constant 10.4 kg by the energies of both tissues. */
const FORBES = (10.4 * KCAL_PER_KG_LEAN) / KCAL_PER_KG_FAT
/** Resting cost a day of a kilogram of fat and of lean, and cost of laying each down. */
const REST_FAT = 3.1
const REST_LEAN = 22
const LAID_FAT = 180
const LAID_LEAN = 230
/** Heat of eating, share of intake. */
const EATING = 0.1
/** Adaptation: its size against the change of intake, and its time, days. */
const ADAPTS = 0.14
const ADAPT_DAYS = 14

/** A body at balance. */
export interface BalancedBody {
  fatKg: number
  leanKg: number
  /** Resting expenditure and daily expenditure by it. */
  restingKcal: number
  activity: number
}

/** A body on a day of a course. */
export interface CoursePoint {
  day: number
  fatKg: number
  leanKg: number
  /** Fat and lean tissue. */
  weightKg: number
  /** Changes since the start: dry glycogen, and the water it and the blood hold. */
  glycogenKg: number
  fluidKg: number
  /** What a scale shows: tissue, glycogen and water. */
  scaleKg: number
}

/** Fat, lean, adaptation; and for checks the energy taken in beyond what was spent, summed up. */
type State = [fat: number, lean: number, adapted: number, stored: number]

/** Longest step, days: fourth order, so that a year is right to 1e-6 kg. */
const STEP = 1

/** How intake differs from balance on a day, kcal. */
export type IntakeChange = (day: number) => number

/** The model for one body. */
export interface DynamicModel {
  /** Intake that keeps the body as it is, kcal a day. */
  balanceKcal: number
  /**
   * The course from day 0 on. Stops before fat or lean would run out.
   * @param change against balance
   * @param days rising, 0 or more, at which it is wanted
   */
  course: (change: IntakeChange, days: readonly number[]) => (CoursePoint & { storedKcal: number })[]
}

/** Share of an imbalance that lean tissue takes, by energy (Forbes). */
export function leanShare(fatKg: number): number {
  return FORBES / (FORBES + fatKg)
}

/** Sets the model up for a body. */
export function dynamicModel({ fatKg, leanKg, restingKcal, activity }: BalancedBody): DynamicModel {
  const weight = fatKg + leanKg
  const balanceKcal = activity * restingKcal
  const delta = ((1 - EATING) * activity - 1) * (restingKcal / weight)
  const constant = balanceKcal - REST_FAT * fatKg - REST_LEAN * leanKg - delta * weight

  function slope([fat, lean, adapted]: State, change: number): State {
    const share = leanShare(fat)
    const spent = constant + REST_FAT * fat + REST_LEAN * lean + delta * (fat + lean) + EATING * change + adapted
    const balance =
      (balanceKcal + change - spent) /
      (1 + (LAID_FAT * (1 - share)) / KCAL_PER_KG_FAT + (LAID_LEAN * share) / KCAL_PER_KG_LEAN)
    const [fatWay, leanWay] = [((1 - share) * balance) / KCAL_PER_KG_FAT, (share * balance) / KCAL_PER_KG_LEAN]
    const laid = LAID_FAT * fatWay + LAID_LEAN * leanWay
    return [fatWay, leanWay, (ADAPTS * change - adapted) / ADAPT_DAYS, balanceKcal + change - spent - laid]
  }

  const ahead = (state: State, way: State, by: number): State => [
    state[0] + by * way[0],
    state[1] + by * way[1],
    state[2] + by * way[2],
    state[3] + by * way[3],
  ]

  /** One step of Runge and Kutta's fourth order. */
  function step(state: State, change: number, by: number): State {
    const a = slope(state, change)
    const b = slope(ahead(state, a, by / 2), change)
    const c = slope(ahead(state, b, by / 2), change)
    const d = slope(ahead(state, c, by), change)
    return [0, 1, 2, 3].map(
      (i) =>
        (state[i] as number) +
        (by / 6) * ((a[i] as number) + 2 * (b[i] as number) + 2 * (c[i] as number) + (d[i] as number)),
    ) as State
  }

  return {
    balanceKcal,
    course(change, days) {
      let state: State = [fatKg, leanKg, 0, 0]
      let day = 0
      const points: (CoursePoint & { storedKcal: number })[] = []
      const water = waterCourse(change, balanceKcal, days)
      for (const [i, wanted] of days.entries()) {
        while (day < wanted - 1e-9) {
          // A change of intake holds from one whole day to the next.
          const by = Math.min(STEP, wanted - day, Math.floor(day + 1e-9) + 1 - day)
          const next = step(state, change(Math.floor(day + 1e-9)), by)
          if (!(next[0] > 0.1 && next[1] > 1)) return points
          state = next
          day += by
        }
        points.push({
          day: wanted,
          fatKg: state[0],
          leanKg: state[1],
          weightKg: state[0] + state[1],
          glycogenKg: water[i]?.glycogenKg ?? 0,
          fluidKg: water[i]?.fluidKg ?? 0,
          scaleKg: state[0] + state[1] + (water[i]?.glycogenKg ?? 0) + (water[i]?.fluidKg ?? 0),
          storedKcal: state[3],
        })
      }
      return points
    },
  }
}

/** Change of body weight by the rule of thumb, kg. */
export function ruleOfThumbKg(change: number, days: number): number {
  return (change * days) / KCAL_PER_KG_RULE
}
