import type { Reading } from '../readings'
import type { Random } from './random'

/** A reading of a digital scale with 0.1 kg steps, half a minute into the visit. */
export function weighIn(random: Random, weightKg: number, startedAt: Date): Reading {
  return {
    id: random.uuid(),
    site: 'weight',
    round: 1,
    value: Math.round(weightKg * 10) / 10,
    unit: 'kg',
    takenAt: new Date(startedAt.getTime() + 30_000).toISOString(),
    source: 'simulated',
  }
}

/** A morning's weight against one at an evening visit: lighter by about this share (common practice). */
const MORNING_SHARE = 0.99

/**
 * A diary of daily weigh-ins, kg: some days are missed, every day carries its noise of about 0.6 % (common practice).
 * @param weightKg what the body weighs at an evening visit, by share of the way from the first day to the last
 * @param days ISO days, oldest first
 */
export function simulateDiary(
  random: Random,
  days: readonly string[],
  weightKg: (share: number) => number,
): { day: string; weightKg: number }[] {
  return days.flatMap((day, i) => {
    const missed = random.next() < 0.18
    const kg = weightKg(i / Math.max(1, days.length - 1)) * MORNING_SHARE * (1 + 0.006 * random.normal())
    return missed ? [] : [{ day, weightKg: Math.round(kg * 10) / 10 }]
  })
}
