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
