import { dayNumber } from '../calendar'
import { Z_95 } from '../error/interval'
import { diaryNoise, trendNoiseSd } from './diary-noise'
import { smoothTrend, weightModel } from './kalman'
import { sevenDayMean, type WeekMean, type WeighIn } from './seven-day'

/** One day of a diary as a chart draws it; kg. */
export interface DiaryPoint {
  day: string
  weightKg: number
  /** Trend level and half of its 95 % interval. */
  level: number
  error: number
}

/** What a weight diary says at its last day; kg and kg a week. */
export interface DiaryReading {
  points: DiaryPoint[]
  week: WeekMean | null
  /** Rate of the trend at its last day with half of its 95 % interval; null with fewer than seven weigh-ins. */
  rate: { perWeek: number; error: number } | null
}

const LEAST_FOR_RATE = 7

/**
 * Reads a weight diary: seven-day mean with its count, and a local linear trend (Kalman filter with smoother) with its
 * rate. Days may be missing. The noise of days and how it lasts are learnt from the diary itself.
 * @param weighIns any order; kg
 */
export function readDiaryTrend(weighIns: readonly WeighIn[]): DiaryReading {
  const sorted = [...weighIns].sort((a, b) => (a.day < b.day ? -1 : 1))
  const last = sorted.at(-1)
  if (!last) return { points: [], week: null, rate: null }
  const observations = sorted.map(({ day, weightKg }) => ({ day: dayNumber(day), value: weightKg }))
  // A day's water stays for days: what lasts averages out more slowly than a model of single days would have it.
  const observationSd = trendNoiseSd(diaryNoise(observations), observations)
  const states = smoothTrend(observations, { ...weightModel(last.weightKg), observationSd })
  const end = states.at(-1)
  return {
    points: sorted.map(({ day, weightKg }, i) => ({
      day,
      weightKg,
      level: states[i]?.level ?? NaN,
      error: Z_95 * Math.sqrt(states[i]?.levelVariance ?? NaN),
    })),
    week: sevenDayMean(sorted, last.day),
    rate:
      end && sorted.length >= LEAST_FOR_RATE
        ? { perWeek: 7 * end.rate, error: 7 * Z_95 * Math.sqrt(end.rateVariance) }
        : null,
  }
}
