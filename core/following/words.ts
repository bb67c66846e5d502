import type { Day } from '../calendar'
import { estimateInputs, type SpanEnd } from '../composition/end-figures'
import { SITES } from '../sites'
import type { Units } from '../units'
import { realWay, type Change } from './change'
import { changeRow, rowSaid } from './change-row'
import type { Span } from './span'
import type { FigureId } from './weights'
import { SIGN_ODDS } from './verdict'

const SI: Units = { mass: 'kg', length: 'cm' }

/** One sentence of the reading of a check-in, with the facts that fired it. */
export interface SpanReading {
  code: string
  sentence: string
  /** The facts it rests on, each as a row says it: "weight 75.0 → 71.4 kg, −3.6: real loss". */
  facts: string[]
}

/** A change as a fact: its row in one line. */
function fact(name: string, change: Change | null, units: Units = SI): string[] {
  return change ? [`${name} ${rowSaid(changeRow(change, units))}`] : []
}

const weightFact = (span: Span, units: Units) => fact('weight', span.weight, units)
const leanFact = (span: Span, units: Units) => fact('lean or water', span.lean, units)
const sumFact = (span: Span) => fact('sum of folds', span.sum)
const percentFact = (span: Span) => fact('percent', span.percent)

type Way = 'up' | 'down' | null

interface Context {
  span: Span
  /** Ways of what is real; null: not real, or not known. */
  weight: Way
  lean: Way
  sum: Way
  percent: Way
}

interface Rule {
  code: string
  fires: (context: Context) => boolean
  sentence: string | ((span: Span) => string)
  /** Instead, where a loss is planned and allowed: nobody else is praised for one. */
  planned?: string
  facts: (span: Span, units: Units) => string[]
}

const all = (span: Span, units: Units) => [...sumFact(span), ...weightFact(span, units), ...leanFact(span, units)]
const siteName = (change: Change | null) => (change?.site ? SITES[change.site].name.toLowerCase() : 'one site')

/** Rules over verdicts, most telling first. A cause is named only from verdicts that are real (following.md). */
export const READING_RULES: readonly Rule[] = [
  {
    code: 'fat-for-lean',
    fires: ({ sum, lean }) => sum === 'down' && lean === 'up',
    sentence: 'The folds are down, and lean mass or water is up.',
    planned: 'The folds are down, and lean mass or water is up: keep going.',
    facts: all,
  },
  {
    code: 'fat-down',
    fires: ({ weight, sum, lean }) => sum === 'down' && weight === 'down' && lean !== 'up',
    sentence: 'Weight and folds are down together.',
    planned: 'Weight and folds are down together: fat is going.',
    facts: all,
  },
  {
    code: 'intake',
    fires: ({ weight, sum }) => sum === 'up' && weight === 'up',
    sentence: 'Folds and weight are up together: intake above what was used.',
    facts: (span, units) => [...sumFact(span), ...weightFact(span, units)],
  },
  {
    code: 'lean-for-fat',
    fires: ({ sum, lean }) => sum === 'up' && lean === 'down',
    sentence: 'The folds are up, and lean mass or water is down. Look at training and protein.',
    facts: all,
  },
  {
    code: 'lean-or-water',
    fires: ({ weight, lean, sum }) => weight === 'down' && lean === 'down' && sum === null,
    sentence:
      'Weight and lean mass are down and the folds show no sure change: lean mass or water. Look at the deficit, protein, training and the conditions of the visit.',
    facts: all,
  },
  {
    code: 'lean-or-water-up',
    fires: ({ weight, lean, sum }) => weight === 'up' && lean === 'up' && sum === null,
    sentence:
      'Weight and lean mass are up and the folds show no sure change: lean mass or water. Look at training, salt, carbohydrate and the conditions of the visit.',
    facts: all,
  },
  {
    code: 'folds-against-weight',
    fires: ({ weight, sum }) => sum === 'up' && weight === 'down',
    sentence: 'The folds are up while weight is down: measure the folds again and look at the conditions of the visit.',
    facts: (span, units) => [...sumFact(span), ...weightFact(span, units)],
  },
  {
    code: 'folds-alone',
    fires: ({ span, weight, sum, lean }) => sum !== null && span.weight !== null && weight === null && lean === null,
    sentence: (span) =>
      `The folds are ${(span.sum?.change ?? 0) < 0 ? 'down' : 'up'}; weight shows no sure change, so nothing can be said of lean mass yet.`,
    facts: all,
  },
  {
    code: 'unweighed',
    fires: ({ span, sum }) => span.weight === null && sum !== null,
    sentence: 'The folds moved, and there is no weight to compare: weigh next time.',
    facts: (span) => sumFact(span),
  },
  {
    code: 'one-fold',
    fires: ({ span }) => span.sum?.verdict === 'one-fold',
    sentence: (span) => `One fold alone carries the change, ${siteName(span.sum)}: measure it again.`,
    facts: (span) => sumFact(span),
  },
  {
    code: 'back',
    fires: ({ span }) => span.sum?.verdict === 'back',
    sentence: 'The folds moved and are back where they were.',
    facts: (span) => sumFact(span),
  },
  {
    code: 'odd-percent',
    fires: ({ span, percent }) =>
      percent !== null && span.sum !== null && span.sum.odds < SIGN_ODDS && span.percentHangsOn.length > 0,
    sentence: (span) =>
      `The percent moved and the folds did not show it: check the ${span.percentHangsOn.join(' and the ')} that ${span.percentHangsOn.length > 1 ? 'were' : 'was'} entered.`,
    facts: (span) => [...percentFact(span), ...sumFact(span)],
  },
  {
    code: 'conditions',
    fires: ({ span }) => span.comparability.differences.some(({ code }) => code === 'conditions'),
    sentence: 'The conditions differ from then: wait for the next check-in before deciding.',
    facts: (span) =>
      span.comparability.differences.filter(({ code }) => code === 'conditions').map(({ sentence }) => sentence),
  },
  {
    code: 'copied',
    fires: ({ span }) => span.copying.size > 0,
    sentence: 'Second readings repeat the first more often than chance: equal pairs count as one reading here.',
    facts: (span) => [`${span.copying.size} ${span.copying.size === 1 ? 'assessor' : 'assessors'}`],
  },
]

/** What an equation takes beside folds and girths that may have been typed wrong. */
export function hangsOn(end: SpanEnd): ('weight' | 'height')[] {
  const inputs = estimateInputs(end)?.reached.equation.inputs ?? []
  return (['weight', 'height'] as const).filter((one) => (inputs as readonly string[]).includes(one))
}

/** How the leading figure is named. */
const LEADING_NAMES: Partial<Record<FigureId, string>> = { sum: 'the sum', percent: 'the percent' }

/** A text with its first letter large. */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}

/** What is said where the change of the leading figure is not settled. */
function unsettled({ leading, settlesOn }: Span, units: Units, say: (day: Day) => string): SpanReading[] {
  if (!leading) return []
  const { verdict, figure } = leading
  const row = changeRow(leading, units)
  const name = LEADING_NAMES[figure] ?? 'the girth'
  const facts = [rowSaid(row), row.reason]
  const pace = settlesOn ? ` At this pace it will be sure by about ${say(settlesOn)}.` : ''
  switch (verdict) {
    case 'some-sign': {
      const later = pace || ' At this pace it will take over half a year of check-ins to be sure.'
      return [{ code: verdict, sentence: `${capital(row.sign)}, not sure yet.${later}`, facts }]
    }
    case 'too-early': {
      const went = `${name} went from ${row.then} to ${row.now} ${row.unit}`
      return [{ code: verdict, sentence: `Too early to say: ${went}.${pace}`, facts }]
    }
    case 'no-sign':
      return [{ code: verdict, sentence: 'No sign of change.', facts }]
    case 'steady':
      return [{ code: verdict, sentence: 'Holding steady: any change is smaller than one that matters.', facts }]
    default:
      return []
  }
}

/** One fold moving for real against all others that moved: measure it again. */
function againstTheOthers({ folds }: Span): SpanReading[] {
  const moved = folds.filter(({ change }) => change.odds >= SIGN_ODDS)
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
      facts: [...fact(name.toLowerCase(), odd.change), `${many.length} others the other way`],
    },
  ]
}

/**
 * A span put into words: every rule that fires, each with the facts that fired it.
 * @param say how a day is written
 * @param losing a loss is planned and allowed
 */
export function readSpan(
  span: Span,
  units: Units = SI,
  say: (day: Day) => string = (day) => day,
  losing = false,
): SpanReading[] {
  const context = {
    span,
    weight: realWay(span.weight),
    lean: realWay(span.lean),
    sum: realWay(span.sum),
    percent: realWay(span.percent),
  }
  const fired = READING_RULES.filter(({ fires }) => fires(context))
  return [
    ...fired.map(({ code, sentence, planned, facts }) => ({
      code,
      sentence: losing && planned ? planned : typeof sentence === 'string' ? sentence : sentence(span),
      facts: facts(span, units),
    })),
    ...unsettled(span, units, say),
    ...againstTheOthers(span),
  ]
}
