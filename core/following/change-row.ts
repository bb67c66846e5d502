import { asSite, isFold } from '../sites'
import { cmToLength, formatChange, formatNumber, kgToMass, MINUS, type Units } from '../units'
import type { Change } from './change'
import type { VerdictKind } from './verdict'
import { VERDICT_WORDS, verdictSaid } from './verdict-words'
import type { FigureId } from './weights'

/** What a row says of a change, as text in the reader's units: the same on every screen, page and file. */
export interface ChangeRow {
  then: string
  now: string
  /** Now less then, of the two figures as they are shown. */
  difference: string
  /** Unit of the two figures, and of their difference: "%" and "points". */
  unit: string
  differenceUnit: string
  verdict: VerdictKind
  /** The sign of change in words: "real loss", "holding steady". */
  sign: string
  /** As short as it gets: "real", "steady". */
  short: string
  /** Why the sign is what it is: "measuring error of two visits ± 14.0". */
  reason: string
  /** The error is the usual one: the studio's own is not known yet. */
  isAssumed: boolean
}

/** What a row is made of. */
export type RowFacts = Pick<Change, 'figure' | 'then' | 'now' | 'change' | 'verdict' | 'visits' | 'error'> & {
  noise: Pick<Change['noise'], 'clients'>
}

/** Decimals of every figure that is followed. */
const DECIMALS = 1

/** A figure in the reader's unit; kg, cm, mm and percent as they are kept. */
function inUnit(figure: FigureId, value: number, units: Units): number {
  if (isMass(figure)) return kgToMass(value, units.mass)
  return isGirth(figure) ? cmToLength(value, units.length) : value
}

const MASSES: readonly FigureId[] = ['fat', 'lean', 'lean-less-fat', 'weight', 'week-weight']
const isMass = (figure: FigureId) => MASSES.includes(figure)

function isGirth(figure: FigureId): boolean {
  const site = asSite(figure)
  return figure.startsWith('corrected-') || (site !== null && !isFold(site))
}

/** The unit a figure is shown in, and that of a difference. */
export function unitOf(figure: FigureId, units: Units): { unit: string; differenceUnit: string } {
  if (figure === 'percent') return { unit: '%', differenceUnit: 'points' }
  const unit = isMass(figure) ? units.mass : isGirth(figure) ? units.length : 'mm'
  return { unit, differenceUnit: unit }
}

/** A figure as every screen, page and file shows it. */
export function figureShown(figure: FigureId, value: number, units: Units): string {
  return formatNumber(inUnit(figure, value, units), DECIMALS)
}

/** The number a text of `formatNumber` or `formatChange` stands for. */
export function numberShown(text: string): number {
  return Number(text.replace(MINUS, '-').replace('+', ''))
}

/** The difference of two figures as they are shown. */
function differenceShown(then: string, now: string): string {
  return formatChange(numberShown(now) - numberShown(then), DECIMALS)
}

const SAYS_MOVED: readonly VerdictKind[] = ['real', 'some-sign', 'one-fold']

/** Why a change has the sign it has, as a coach would say it. */
function reasonOf({ figure, then, now, verdict, visits, error }: RowFacts, units: Units): string {
  const size = figureShown(figure, error, units)
  const isWide = Math.abs(now - then) > error
  const saysMoved = SAYS_MOVED.includes(verdict)
  if (visits > 2 && isWide !== saysMoved) return `by all ${visits} check-ins together; two visits alone: ± ${size}`
  const needsMore = isWide && !saysMoved
  return `measuring error of two visits ± ${size}${needsMore ? '; a third visit is needed' : ''}`
}

/**
 * The row of a change.
 * @example changeRow({ figure: 'sum', then: 142.8, now: 129.8, verdict: 'too-early', … }, units).difference // '−13.0'
 */
export function changeRow(facts: RowFacts, units: Units): ChangeRow {
  const { figure, verdict } = facts
  const [then, now] = [figureShown(figure, facts.then, units), figureShown(figure, facts.now, units)]
  return {
    then,
    now,
    difference: differenceShown(then, now),
    ...unitOf(figure, units),
    verdict,
    sign: verdictSaid(facts),
    short: VERDICT_WORDS[verdict].short,
    reason: reasonOf(facts, units),
    isAssumed: facts.noise.clients === 0,
  }
}

/** A row in one line: "75.0 → 71.4 kg, −3.6: real loss". */
export function rowSaid({ then, now, unit, difference, differenceUnit, sign }: ChangeRow): string {
  const after = differenceUnit === unit ? difference : `${difference} ${differenceUnit}`
  return `${then} → ${now} ${unit}, ${after}: ${sign}`
}

/** What is said where the error is the usual one. */
export const USUAL_ERROR = 'Using the usual error until yours is known.'
