import type { Span } from './span'
import type { Change } from '../error/change'
import { SITES } from '../sites'
import { formatNumber, formatMass, type Units } from '../units'

const COUNTS = ['none', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine']

/** A small count in letters. */
function inLetters(count: number): string {
  return COUNTS[count] ?? String(count)
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}

interface Followed {
  name: string
  change: Change | null
  size: (change: Change) => string
}

function list(names: readonly string[]): string {
  return names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : (names[0] ?? '')
}

/** What moved, each in a sentence of its own; what did not, in one. */
function moved(all: readonly Followed[]): string[] {
  const known = all.flatMap(({ name, change, size }) => (change ? [{ name, change, size }] : []))
  const still = known.filter(({ change }) => change.verdict === 'within error').map(({ name }) => name)
  const said = known
    .filter(({ change }) => change.verdict !== 'within error')
    .map(({ name, change, size }) => {
      const way = change.change < 0 ? 'down' : 'up'
      return change.verdict === 'real'
        ? `${capital(name)} is ${way} by ${size(change)}, beyond the measuring error.`
        : `${capital(name)} is probably ${way} by ${size(change)}, near the measuring error.`
    })
  const rest = still.length > 0 ? [`${capital(list(still))} ${still.length > 1 ? 'are' : 'is'} within error.`] : []
  return [...said, ...rest]
}

function named(sites: Span['folds']): string {
  return list(sites.map(({ site }) => SITES[site].name.toLowerCase()))
}

function foldsSaid({ folds }: Span): string[] {
  const real = folds.filter(({ change }) => change.verdict === 'real')
  if (folds.length === 0) return []
  if (real.length === 0) return [`No fold has moved beyond error (${inLetters(folds.length)} compared).`]
  const down = real.filter(({ change }) => change.change < 0)
  const rest = folds.filter(({ change }) => change.verdict !== 'real')
  const way = down.length === real.length ? 'down' : down.length === 0 ? 'up' : 'changed'
  const many = `${capital(inLetters(real.length))} of ${inLetters(folds.length)} folds ${real.length === 1 ? 'is' : 'are'} ${way} beyond error`
  if (rest.length === 0) return [`${many}.`]
  return rest.length <= 3 ? [`${many}; ${named(rest)} ${rest.length === 1 ? 'is' : 'are'} not.`] : [`${many}.`]
}

/** What changed over a span in plain sentences a client reads; in neutral mode folds and girths only. */
export function summariseSpan(span: Span, units: Units, neutral = false): string[] {
  const mass = ({ change }: Change) => `${formatMass(Math.abs(change), units)} ${units.mass}`
  const sum = {
    name: 'the sum of folds',
    change: span.sum,
    size: (one: Change) => `${formatNumber(Math.abs(one.change))} mm`,
  }
  const followed: Followed[] = neutral
    ? [sum]
    : [
        { name: 'fat', change: span.fat, size: mass },
        { name: 'lean mass', change: span.lean, size: mass },
        { name: span.byWeek ? 'the week’s weight' : 'weight', change: span.weight, size: mass },
        ...(span.fat ? [] : [sum]),
      ]
  return [...moved(followed), ...foldsSaid(span)]
}
