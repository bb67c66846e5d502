import { nextStep, sessionState, withNext, type Reading } from '../readings'
import { isFold } from '../sites'
import { type Protocol } from '../protocols'
import type { Random } from './random'

/** What a simulated assessor needs to know. */
export interface SimulatedSession {
  protocol: Protocol
  /** The folds, mm, and girths, cm, as they are at this visit. */
  trueFolds: Readonly<Record<string, number>>
  /** Technical error of one reading as a share of the fold: 0.04 is a trained assessor. */
  technicalError: number
  startedAt: Date
  /** Stop after this many readings: an unfinished session. */
  stopAfter?: number
}

const SECONDS_A_READING = 11

/** A girth is steadier than a fold: its technical error is a fifth of the assessor's at folds (common practice). */
const GIRTH_ERROR_SHARE = 0.2

/** A tape is read to the millimetre. */
function readTape(cm: number): number {
  return Math.round(cm * 10) / 10
}

/** A caliper's dial is read to the half millimetre. */
function readDial(mm: number): number {
  return Math.max(2, Math.round(mm * 2) / 2)
}

/**
 * Takes a whole session as an assessor would: site after site as `nextStep` asks, each reading off by the assessor's
 * technical error and rounded to the half millimetre.
 */
export function simulateFolds(random: Random, wanted: SimulatedSession): Reading[] {
  const { protocol, trueFolds, technicalError, startedAt, stopAfter = Infinity } = wanted
  const readings: Reading[] = []
  let session = sessionState(protocol, [], [])
  for (;;) {
    const step = nextStep(session)
    if (step.kind === 'finished' || readings.length >= stopAfter) return readings
    const fold = isFold(step.site)
    const truth = trueFolds[step.site] ?? (fold ? 10 : 40)
    const reading: Reading = {
      id: random.uuid(),
      site: step.site,
      round: step.round,
      value: fold
        ? readDial(truth * (1 + technicalError * random.normal()))
        : readTape(truth * (1 + GIRTH_ERROR_SHARE * technicalError * random.normal())),
      unit: fold ? 'mm' : 'cm',
      takenAt: new Date(startedAt.getTime() + (60 + readings.length * SECONDS_A_READING) * 1000).toISOString(),
      source: 'simulated',
    }
    readings.push(reading)
    session = withNext(session, reading)
  }
}
