import { weighIn } from './weight'
import { simulateFolds } from './assessor'
import type { Random } from './random'
import type { Sex } from '../equations'
import type { Reading } from '../readings'
import type { Protocol } from '../protocols'
import { isFold } from '../sites'

/** How an invented client's body goes over the months. */
export interface Course {
  sex: Sex
  /** Sum of the seven laboratory folds at the first and at the newest check-in, mm. */
  sumMm: { first: number; last: number }
  weightKg: { first: number; last: number }
  /** Girths at the first check-in, cm; they follow the weight. */
  girthsCm?: Readonly<Record<string, number>>
  /** Height of a slow wave laid over the way from first to last, as a share: holidays and hard months. */
  wave: number
  /** Share of the way from which they hold what they reached; without it they are on the way to the last visit. */
  heldFrom?: number
}

/** One simulated visit. */
export interface SimulatedVisit {
  startedAt: string
  finishedAt: string | null
  readings: Reading[]
}

/** Sites outside the seven, as shares of the seven-fold sum: invented. */
const OTHER_SHARES = {
  biceps: 0.07,
  'midaxillary-horizontal': 0.1,
  'iliac-crest': 0.16,
  supraspinale: 0.11,
  'abdominal-5cm': 0.18,
  'front-thigh': 0.2,
  'medial-calf': 0.12,
  'lower-back': 0.15,
}

/** Share of the seven-fold sum at each site: invented, but in the order usual for each sex. */
const SHARES: Record<Sex, Record<string, number>> = {
  female: {
    triceps: 0.17,
    subscapular: 0.12,
    chest: 0.08,
    midaxillary: 0.09,
    suprailiac: 0.13,
    abdominal: 0.17,
    thigh: 0.24,
    ...OTHER_SHARES,
  },
  male: {
    triceps: 0.1,
    subscapular: 0.14,
    chest: 0.1,
    midaxillary: 0.12,
    suprailiac: 0.15,
    abdominal: 0.21,
    thigh: 0.18,
    ...OTHER_SHARES,
  },
}

/** A course's value part of the way from first to last, with its wave. */
export function along(range: { first: number; last: number }, share: number, wave: number): number {
  const eased = share * share * (3 - 2 * share)
  return (range.first + (range.last - range.first) * eased) * (1 + wave * Math.sin(share * 7))
}

/** A mark found anew at each visit moves a fold by this share, and a girth by this (common practice, a good assessor). */
const MARK_ANEW = 0.035
const GIRTH_ANEW = 0.004

/** What a series of visits is made from. */
export interface SimulatedSeries {
  course: Course
  protocol: Protocol
  technicalError: number
  /** Start of each visit, oldest first. */
  starts: readonly Date[]
  /** Readings in the newest visit when it was left unfinished. */
  unfinishedAfter?: number
}

/** A client's visits with every reading, oldest first; the same random source gives the same visits. */
export function simulateVisits(random: Random, series: SimulatedSeries): SimulatedVisit[] {
  const { course, protocol, technicalError, starts, unfinishedAfter } = series
  const habit = Object.fromEntries(protocol.sites.map((site) => [site, 1 + 0.08 * random.normal()]))
  return starts.map((startedAt, i) => {
    const passed = starts.length > 1 ? i / (starts.length - 1) : 1
    const share = Math.min(1, passed / (course.heldFrom ?? 1))
    const sum = along(course.sumMm, share, course.wave)
    const trueFolds = Object.fromEntries(
      protocol.sites.map((site) => {
        const anew = 1 + (isFold(site) ? MARK_ANEW : GIRTH_ANEW) * random.normal()
        const girth = course.girthsCm?.[site]
        if (girth !== undefined)
          return [site, girth * (along(course.weightKg, share, 0) / course.weightKg.first) ** 0.6 * anew]
        return [site, sum * (SHARES[course.sex][site] ?? 0.1) * (habit[site] ?? 1) * anew]
      }),
    )
    const unfinished = unfinishedAfter !== undefined && i === starts.length - 1
    const folds = simulateFolds(random, {
      protocol,
      trueFolds,
      technicalError,
      startedAt,
      ...(unfinished ? { stopAfter: unfinishedAfter } : {}),
    })
    const weightKg = along(course.weightKg, share, course.wave / 4) * (1 + 0.004 * random.normal())
    const readings = [weighIn(random, weightKg, startedAt), ...folds]
    const lastAt = readings.at(-1)?.takenAt ?? startedAt.toISOString()
    return {
      startedAt: startedAt.toISOString(),
      finishedAt: unfinished ? null : new Date(Date.parse(lastAt) + 20_000).toISOString(),
      readings,
    }
  })
}
