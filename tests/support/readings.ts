import { nextStep, sessionState, type Reading, type Strike } from '../../core/readings'
import type { SiteId } from '../../core/sites'
import type { Protocol } from '../../core/protocols'

let made = 0

/** A reading at a second of an invented afternoon; ids count up. */
export function fold(site: SiteId, value: number, second = made): Reading {
  made += 1
  return {
    id: `00000000-0000-4000-8000-${String(made).padStart(12, '0')}`,
    site,
    round: 1,
    value,
    unit: 'mm',
    takenAt: new Date(Date.UTC(2026, 9, 23, 17, 0, second)).toISOString(),
    source: 'keyboard',
  }
}

/** A weight in kg, before the folds. */
export function weight(kg: number): Reading {
  return { ...fold('triceps', 10, 0), site: 'weight', value: kg, unit: 'kg' }
}

export function strike(reading: Reading): Strike {
  return { readingId: reading.id, struckAt: reading.takenAt }
}

/** Every site read once a round with the given values, in the protocol's order. */
export function rounds(protocol: Protocol, ...values: number[][]): Reading[] {
  return values.flatMap((round, r) => protocol.sites.map((site, i) => fold(site, round[i] ?? 10, r * 100 + i)))
}

/** Takes a session the way the screen does: reads what `nextStep` asks for until it asks for nothing. */
export function takeSession(protocol: Protocol, read: (site: SiteId, round: number) => number): Reading[] {
  const taken: Reading[] = []
  for (let second = 0; second < 500; second += 1) {
    const step = nextStep(sessionState(protocol, taken, []))
    if (step.kind === 'finished') return taken
    taken.push(fold(step.site, read(step.site, step.round), second))
  }
  throw new Error('The session does not end.')
}
