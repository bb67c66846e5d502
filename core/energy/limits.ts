import { fixed } from '../units/round'
import { courseFindings, intakeFindings, isPersonal, type GateCode, type SafetyFacts } from '../safety'
import type { CoursePoint } from './dynamic'

/**
 * Fat's supply limit, kcal a day a kg of fat: 22 a pound, to which Alpert later lowered his figure; it is the one held to,
 * being the safer. First published (Alpert 2005, J Theor Biol 233:1): 31 a pound.
 */
export const SUPPLY_LIMIT = { used: 48, first: 69 } as const
/** Part of daily expenditure that is no training, as a multiple of resting: a day seated (FAO/WHO/UNU, rounded). */
const NO_TRAINING = 1.4

/** Limits look at tissue: the water of the first days is none. */
type TissuePoint = Pick<CoursePoint, 'day' | 'fatKg' | 'leanKg' | 'weightKg'>

/** What limits look at. */
export interface IntakeFacts {
  /** The person as the gate knows them. */
  safety: SafetyFacts
  restingKcal: number
  dailyKcal: number
  intakeKcal: number
  /** The expected course, its start first, a point a week or oftener; empty where no fat and lean mass are known. */
  course: readonly TissuePoint[]
}

/** A limit that is passed. `stop`: no such plan is kept; else it is a caution beside it. */
export interface Limit {
  code: GateCode | 'supply'
  stop: boolean
  sentence: string
}

/** Fastest change of a course over any week, kg: of a loss below zero. */
function fastestWeek(course: readonly TissuePoint[], isLoss: boolean): number {
  const changes = course.flatMap((later, i) =>
    course.slice(0, i).flatMap((earlier) => {
      const days = later.day - earlier.day
      return days >= 6 && days <= 8 ? [((later.weightKg - earlier.weightKg) * 7) / days] : []
    }),
  )
  return isLoss ? Math.min(0, ...changes) : Math.max(0, ...changes)
}

function supplyLimit(deficit: number, fatKg: number): Limit[] {
  const perKg = deficit / fatKg
  if (perKg <= SUPPLY_LIMIT.used) return []
  return [
    {
      code: 'supply',
      stop: false,
      sentence: `The deficit is ${fixed(perKg, 0)} kcal a day for each kg of fat; fat is thought to supply about ${SUPPLY_LIMIT.used} (22 a pound, a later and lower figure than the ${SUPPLY_LIMIT.first} first published): lean mass is likely to go.`,
    },
  ]
}

/**
 * Every limit that a planned intake passes, each with its sentence: the gate's (core/safety), and what fat can supply. It
 * needs weight and height; with a course also what the course comes to.
 */
export function intakeLimits({ safety, restingKcal, dailyKcal, intakeKcal, course }: IntakeFacts): Limit[] {
  const [start, end] = [course[0], course.at(-1)]
  const deficit = dailyKcal - intakeKcal
  const trainingKcal = Math.max(0, dailyKcal - NO_TRAINING * restingKcal)
  const intake = { intakeKcal, dailyKcal, restingKcal, trainingKcal, fatFreeKg: start?.leanKg ?? null }
  const found = intakeFindings(safety, intake)
  // People for whom no deficit is planned are shown the reason and nothing else.
  const personal = deficit > 0 && found.find(({ code, outcome }) => outcome === 'stop' && isPersonal(code))
  if (personal) return [{ code: personal.code, stop: true, sentence: personal.sentence }]
  if (start && end && Math.abs(deficit) >= 1)
    found.push(
      ...courseFindings(safety, {
        startKg: start.weightKg,
        endKg: end.weightKg,
        endPercent: (100 * end.fatKg) / end.weightKg,
        weekKg: fastestWeek(course, deficit > 0),
        direction: deficit > 0 ? 'loss' : 'gain',
      }),
    )
  const once = new Map(found.map((one) => [`${one.code} ${one.outcome}`, one]))
  const limits = [...once.values()].map(({ code, outcome, sentence }) => ({ code, stop: outcome === 'stop', sentence }))
  return start && deficit > 0 ? [...limits, ...supplyLimit(deficit, start.fatKg)] : limits
}
