import { SITES } from '../sites'
import type { Units } from '../units'
import type { Change } from './change'
import { changeRow } from './change-row'
import type { Span } from './span'
import { capital } from './words'
import { isWorthwhile, WORTHWHILE, type Worthwhile } from './worthwhile'

const COUNTS = ['none', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine']

/** A small count in letters. */
export function inLetters(count: number): string {
  return COUNTS[count] ?? String(count)
}

interface Followed {
  name: string
  /** Where it did not change; left out: the name. */
  still?: string
  change: Change | null
}

function list(names: readonly string[]): string {
  return names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : (names[0] ?? '')
}

/** A sentence about a figure that moved or may have; null: nothing to say of it but that. */
function sentenceOf({ name, change }: Followed, units: Units, smallest: Worthwhile): string | null {
  if (!change) return null
  const { then, now, unit, difference, sign } = changeRow(change, units)
  switch (change.verdict) {
    case 'real': {
      const way = change.change < 0 ? 'down' : 'up'
      const small = isWorthwhile(change, smallest) === false ? ', though small' : ''
      return `${capital(name)} is ${way} by ${difference.slice(1)} ${unit}, from ${then} to ${now}: a ${sign}${small}.`
    }
    case 'some-sign':
      return `${capital(name)} went from ${then} to ${now} ${unit}: ${sign}, not sure yet.`
    case 'one-fold':
      return `One fold alone moved${change.site ? `, ${SITES[change.site].name.toLowerCase()}` : ''}: to be measured again.`
    case 'back':
      return `${capital(name)} is back where it was.`
    case 'steady':
      return `${capital(name)} is holding steady.`
    default:
      return null
  }
}

/** What moved, each in a sentence of its own; what shows no sign or not enough, in one. */
function moved(all: readonly Followed[], units: Units, smallest: Worthwhile): string[] {
  const known = all.filter(({ change }) => change !== null)
  const said = known.flatMap((one) => sentenceOf(one, units, smallest) ?? [])
  const still = known
    .filter((one) => sentenceOf(one, units, smallest) === null)
    .map(({ name, still: plain = name }) => plain)
  return still.length > 0 ? [...said, `No sure change yet of ${list(still)}.`] : said
}

function foldsSaid({ folds }: Span): string[] {
  const real = folds.filter(({ change }) => change.verdict === 'real')
  if (folds.length === 0) return []
  if (real.length === 0) return ['No single fold has changed for sure.']
  const down = real.filter(({ change }) => change.change < 0)
  const way = down.length === real.length ? 'down' : down.length === 0 ? 'up' : 'changed'
  const many = `${capital(inLetters(real.length))} of ${inLetters(folds.length)} folds ${real.length === 1 ? 'is' : 'are'} ${way} by itself for sure`
  if (real.length > 3) return [`${many.replace('by itself', 'by themselves')}.`]
  return [
    `${real.length === 1 ? many : many.replace('by itself', 'by themselves')}: ${list(real.map(({ site }) => SITES[site].name.toLowerCase()))}.`,
  ]
}

/** What changed over a span in plain sentences a client reads; in neutral mode folds and girths only. */
export function summariseSpan(span: Span, units: Units, neutral = false, smallest: Worthwhile = WORTHWHILE): string[] {
  const sum = { name: 'the sum of folds', change: span.sum }
  const followed: Followed[] = neutral
    ? [sum]
    : [
        { name: 'fat', change: span.fat },
        { name: 'lean mass or water', still: 'lean mass', change: span.lean },
        { name: 'weight', change: span.weight },
        ...(span.fat ? [] : [sum]),
      ]
  return [...moved(followed, units, smallest), ...foldsSaid(span)]
}

/** What the promise is, for somebody who is measured. */
export const PROMISE =
  'Real means: of people who do not change at all, at most one in twenty ever hears that they did, however often we look. It says that the measurements moved, by fat, by water or by the hand that measured; it does not say why.'

/** What it means for them that the start was found by looking back. */
export const SEARCHED_START =
  'The first day of this page was chosen after the fact, so stronger proof is asked before a change is called real.'
