import type { Span } from './span'
import type { Change } from '../error/change'
import { SITES } from '../sites'
import { formatChange, formatMassChange, type Units } from '../units'

/** One sentence of the reading of a check-in, with the facts that fired it. */
export interface SpanReading {
  code: string
  sentence: string
  /** The facts it rests on, each as it would be said: "weight -2.9 kg, real". */
  facts: string[]
}

type Direction = 'up' | 'down' | 'still'

/** Which way, beyond the 68 % line; still: within error. */
function direction(change: Change | null): Direction | null {
  if (!change) return null
  if (change.verdict === 'within error') return 'still'
  return change.change > 0 ? 'up' : 'down'
}

function fact(name: string, change: Change | null, unit: string): string[] {
  return change ? [`${name} ${formatChange(change.change, 1)} ${unit}, ${change.verdict}`] : []
}

interface Context {
  span: Span
  weight: Direction | null
  sum: Direction | null
  girths: Direction | null
}

interface Rule {
  code: string
  fires: (context: Context) => boolean
  sentence: string
  facts: (span: Span, units: Units) => string[]
}

function massFact(name: string, change: Change | null, units: Units): string[] {
  return change ? [`${name} ${formatMassChange(change.change, units)} ${units.mass}, ${change.verdict}`] : []
}

const weightFact = (span: Span, units: Units) => massFact('weight', span.weight, units)
const sumFact = (span: Span) => fact('sum of folds', span.sum, 'mm')
const limbFacts = (span: Span) => span.corrected.flatMap(({ limb, change }) => fact(`corrected ${limb}`, change, 'cm'))

/** Rules over verdicts, most telling first (common practice); one of them fires whatever folds and weight did. */
export const READING_RULES: readonly Rule[] = [
  {
    code: 'lean-or-water',
    fires: ({ weight, sum }) => weight === 'down' && sum === 'still',
    sentence:
      'Weight is down and the folds are within error: lean mass or water. Look at the deficit, protein, training and the conditions of the visit.',
    facts: (span, units) => [...weightFact(span, units), ...sumFact(span)],
  },
  {
    code: 'fat-for-lean',
    fires: ({ weight, sum, girths }) => sum === 'down' && weight === 'still' && girths !== 'down',
    sentence: 'The folds are down at a steady weight: fat for lean. Keep going.',
    facts: (span, units) => [...sumFact(span), ...weightFact(span, units), ...limbFacts(span)],
  },
  {
    code: 'fat-down',
    fires: ({ weight, sum }) => sum === 'down' && weight === 'down',
    sentence: 'Weight and folds are down together: fat is going.',
    facts: (span, units) => [...sumFact(span), ...weightFact(span, units), ...massFact('lean', span.lean, units)],
  },
  {
    code: 'intake',
    fires: ({ weight, sum }) => sum === 'up' && weight === 'up',
    sentence: 'Folds and weight are up together: intake above what was used.',
    facts: (span, units) => [...sumFact(span), ...weightFact(span, units)],
  },
  {
    code: 'lean-for-fat',
    fires: ({ weight, sum }) => sum === 'up' && weight === 'still',
    sentence: 'The folds are up at a steady weight: lean mass given for fat. Look at training and protein.',
    facts: (span, units) => [...sumFact(span), ...weightFact(span, units), ...limbFacts(span)],
  },
  {
    code: 'lean-or-water-up',
    fires: ({ weight, sum }) => weight === 'up' && sum === 'still',
    sentence:
      'Weight is up and the folds are within error: lean mass or water. Look at training, salt, carbohydrate and the conditions of the visit.',
    facts: (span, units) => [...weightFact(span, units), ...sumFact(span), ...limbFacts(span)],
  },
  {
    code: 'fat-off-weight-on',
    fires: ({ weight, sum }) => sum === 'down' && weight === 'up',
    sentence: 'The folds are down while weight is up: lean mass or water came for fat. Look at the girths.',
    facts: (span, units) => [...sumFact(span), ...weightFact(span, units), ...limbFacts(span)],
  },
  {
    code: 'folds-against-weight',
    fires: ({ weight, sum }) => sum === 'up' && weight === 'down',
    sentence: 'The folds are up while weight is down: measure the folds again and look at the conditions of the visit.',
    facts: (span, units) => [...sumFact(span), ...weightFact(span, units)],
  },
  {
    code: 'girths-with-folds',
    fires: ({ weight, sum, girths }) => sum === 'down' && weight === 'still' && girths === 'down',
    sentence: 'Folds and corrected girths are down at a steady weight: measure the girths again before believing it.',
    facts: (span, units) => [...sumFact(span), ...limbFacts(span), ...weightFact(span, units)],
  },
  {
    code: 'unweighed',
    fires: ({ weight, sum }) => weight === null && (sum === 'up' || sum === 'down'),
    sentence: 'The folds moved and there is no weight to hold them against: weigh next time.',
    facts: (span) => sumFact(span),
  },
  {
    code: 'steady',
    fires: ({ weight, sum }) => sum === 'still' && (weight === 'still' || weight === null),
    sentence: 'Nothing moved beyond error. Within error is a good answer: hold the course or give it longer.',
    facts: (span, units) => [...sumFact(span), ...weightFact(span, units)],
  },
  {
    code: 'odd-percent',
    fires: ({ span, sum }) =>
      sum === 'still' && direction(span.percent) !== null && direction(span.percent) !== 'still',
    sentence: 'The percent moved but the folds did not: check the weight or height that was entered.',
    facts: (span) => [...fact('percent', span.percent, 'points'), ...sumFact(span)],
  },
  {
    code: 'conditions',
    fires: ({ span }) => span.comparability.differences.some(({ code }) => code === 'conditions'),
    sentence: 'The conditions differ from last time: wait for the next check-in before deciding.',
    facts: (span) =>
      span.comparability.differences.filter(({ code }) => code === 'conditions').map(({ sentence }) => sentence),
  },
]

/** One fold moving for real against all others that moved: measure it again. */
function againstTheOthers({ folds }: Span): SpanReading[] {
  const moved = folds.filter(({ change }) => direction(change) !== 'still')
  const up = moved.filter(({ change }) => change.change > 0)
  const down = moved.filter(({ change }) => change.change < 0)
  const [few, many] = up.length < down.length ? [up, down] : [down, up]
  const [odd] = few
  if (few.length !== 1 || !odd || many.length < 2 || odd.change.verdict !== 'real') return []
  const name = SITES[odd.site].name
  return [
    {
      code: 'odd-fold',
      sentence: `${name} moved against all other folds: measure it again.`,
      facts: [...fact(name.toLowerCase(), odd.change, 'mm'), `${many.length} others the other way`],
    },
  ]
}

function girthsOf({ corrected }: Span): Direction | null {
  if (corrected.length === 0) return null
  const ways = corrected.map(({ change }) => direction(change))
  if (ways.includes('down') && !ways.includes('up')) return 'down'
  return ways.includes('up') && !ways.includes('down') ? 'up' : 'still'
}

const SI: Units = { mass: 'kg', length: 'cm' }

/** A span put into words: every rule that fires, each with the facts that fired it. */
export function readSpan(span: Span, units: Units = SI): SpanReading[] {
  const context = { span, weight: direction(span.weight), sum: direction(span.sum), girths: girthsOf(span) }
  const fired = READING_RULES.filter(({ fires }) => fires(context))
  return [
    ...fired.map(({ code, sentence, facts }) => ({ code, sentence, facts: facts(span, units) })),
    ...againstTheOthers(span),
  ]
}
