import { ESSENTIAL_FAT, UNDERWEIGHT_BMI } from '../cautions'
import type { Sex } from '../equations/equation'
import { formatMass, type Units } from '../units'
import type { CoursePoint } from './dynamic'

/** Least intake that is said without a dietitian, kcal a day (common practice). */
export const INTAKE_FLOOR: Readonly<Record<Sex, number>> = { female: 1200, male: 1500 }
/** Energy availability from which a plan stops, kcal a kg of fat-free mass a day (common practice). */
export const LEAST_AVAILABILITY = 30
/**
 * Fat's supply limit, kcal a day a kg of fat: 22 a pound, to which Alpert later lowered his figure; it is the one held to,
 * being the safer. First published (Alpert 2005, J Theor Biol 233:1): 31 a pound.
 */
export const SUPPLY_LIMIT = { used: 48, first: 69 } as const
/** Fastest loss: two pounds or 1 % of body weight a week, whichever is less (common practice). */
export const FASTEST_KG = 0.9
export const FASTEST_SHARE = 0.01
/** Part of daily expenditure that is no training, as a multiple of resting: a day seated (FAO/WHO/UNU, rounded). */
const NO_TRAINING = 1.4

/** What limits look at. */
export interface IntakeFacts {
  sex: Sex
  heightCm: number | null
  /** Sentences of the person's own cautions that allow no deficit. */
  personal: readonly string[]
  restingKcal: number
  dailyKcal: number
  intakeKcal: number
  /** The expected course, its start first, a point a week or oftener. */
  course: readonly CoursePoint[]
  units: Units
}

/** A limit that is passed. `stop`: no such plan is kept; else it is a caution beside it. */
export interface Limit {
  code: 'person' | 'floor' | 'resting' | 'availability' | 'pace' | 'supply' | 'bmi-start' | 'bmi-end' | 'essential'
  stop: boolean
  sentence: string
}

const REFER = 'A registered dietitian or doctor decides below it, not a coach.'
const whole = (value: number) => Math.round(value).toLocaleString('en-US')

/** Fastest loss of a course over any week, kg. */
function fastestWeek(course: readonly CoursePoint[]): number {
  let fastest = 0
  for (const [i, later] of course.entries()) {
    for (const earlier of course.slice(0, i)) {
      const days = later.day - earlier.day
      if (days >= 6 && days <= 8) fastest = Math.max(fastest, ((earlier.weightKg - later.weightKg) * 7) / days)
    }
  }
  return fastest
}

/**
 * Every limit that a planned intake passes, each with its sentence. An intake at or above expenditure passes none but the
 * person's floors, which hold for everybody.
 */
export function intakeLimits(facts: IntakeFacts): Limit[] {
  const { sex, heightCm, personal, restingKcal, dailyKcal, intakeKcal, course, units } = facts
  const [start, end] = [course[0], course.at(-1)]
  const limits: Limit[] = []
  const add = (code: Limit['code'], sentence: string, stop = true) => limits.push({ code, stop, sentence })
  const deficit = dailyKcal - intakeKcal
  const [own] = personal
  if (deficit > 0 && own) return [{ code: 'person', stop: true, sentence: `No deficit is planned. ${own}` }]
  if (intakeKcal < INTAKE_FLOOR[sex])
    add(
      'floor',
      `${whole(intakeKcal)} kcal a day is under ${whole(INTAKE_FLOOR[sex])} for ${sex === 'male' ? 'men' : 'women'}. ${REFER}`,
    )
  if (deficit > 0 && intakeKcal < restingKcal)
    add(
      'resting',
      `${whole(intakeKcal)} kcal a day is under resting expenditure, about ${whole(restingKcal)}. ${REFER}`,
    )
  if (!start || !end || deficit <= 0) return limits
  const training = Math.max(0, dailyKcal - NO_TRAINING * restingKcal)
  const available = (intakeKcal - training) / start.leanKg
  if (available < LEAST_AVAILABILITY)
    add(
      'availability',
      `That leaves ${available.toFixed(0)} kcal a day for each kg of lean mass once training is paid for; under ${LEAST_AVAILABILITY} bones, hormones and training suffer. ${REFER}`,
    )
  const most = Math.min(FASTEST_KG, FASTEST_SHARE * start.weightKg)
  const week = fastestWeek(course)
  if (week > most + 5e-3)
    add(
      'pace',
      `The fastest week would take ${formatMass(week, units, 2)} ${units.mass}; no more than ${formatMass(most, units, 2)} (0.9 kg or 1 % of body weight).`,
    )
  const perKg = deficit / start.fatKg
  if (perKg > SUPPLY_LIMIT.used)
    add(
      'supply',
      `The deficit is ${perKg.toFixed(0)} kcal a day for each kg of fat; fat is thought to supply about ${SUPPLY_LIMIT.used} (22 a pound, a later and lower figure than the ${SUPPLY_LIMIT.first} first published): lean mass is likely to go.`,
      false,
    )
  if (heightCm !== null) {
    const bmi = ({ weightKg }: CoursePoint) => weightKg / (heightCm / 100) ** 2
    if (bmi(start) < UNDERWEIGHT_BMI)
      add('bmi-start', `The BMI is ${bmi(start).toFixed(1)}, under ${UNDERWEIGHT_BMI}: no plan to lose. Refer.`)
    else if (bmi(end) < UNDERWEIGHT_BMI)
      add('bmi-end', `It would end at a BMI of ${bmi(end).toFixed(1)}, under ${UNDERWEIGHT_BMI}: refused. Refer.`)
  }
  const percent = (100 * end.fatKg) / end.weightKg
  if (percent < ESSENTIAL_FAT[sex].low)
    add('essential', `It would end at ${percent.toFixed(1)} % fat, below essential fat: refused.`)
  return limits
}
