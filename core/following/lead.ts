import { daysBetween, type Day } from '../calendar'
import { SITES } from '../sites'
import type { Units } from '../units'
import type { Change } from './change'
import { changeRow, type ChangeRow } from './change-row'
import type { Span } from './span'
import { inLetters } from './summary'
import type { SaidUnasked } from './unasked'
import { capital } from './words'

/** What the sentence is made with. */
export interface LeadSettings {
  units: Units
  /** Day of the later check-in, and of the earlier one. */
  from: Day
  to: Day
  /** When to measure again: the client's next date. */
  next: Day | null
  /** Said unasked; null while it is worked out. */
  unasked: SaidUnasked | null
  /** Masses and percent are not spoken of. */
  neutral: boolean
  /** How a day is written. */
  say: (day: Day) => string
}

/** Days from which a start is named by its month. */
const BY_MONTH = 60

const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'long', timeZone: 'UTC' })
const MONTH_OF_YEAR = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' })

/** A start as a coach would say it: "July", "July 2025", "9 November". */
function startSaid(from: Day, to: Day, say: (day: Day) => string): string {
  if (daysBetween(from, to) < BY_MONTH) return say(from)
  const isLongAgo = daysBetween(from, to) > 330
  return (isLongAgo ? MONTH_OF_YEAR : MONTH).format(new Date(`${from}T00:00:00Z`))
}

/** How the folds went, by the figures shown; null with fewer than three. */
function foldsWent({ folds }: Span, units: Units): string | null {
  if (folds.length < 3) return null
  const rows = folds.map(({ change }) => changeRow(change, units).difference)
  const fell = rows.filter((one) => one.startsWith('−')).length
  const rose = rows.filter((one) => one.startsWith('+')).length
  const [most, word] = fell >= rose ? [fell, 'fell'] : [rose, 'rose']
  if (most === folds.length) return `All ${inLetters(most)} folds ${word}.`
  if (most > folds.length / 2) return `${capital(inLetters(most))} of ${inLetters(folds.length)} folds ${word}.`
  return 'Some folds fell and some rose.'
}

/** What is spoken of, and how it is named: fat where it is known, else the figure the promise belongs to. */
function subjectOf(span: Span, neutral: boolean): { change: Change; name: string } | null {
  const leading = span.leading && { change: span.leading, name: nameOf(span.leading) }
  if (neutral || !span.fat) return leading
  // Where the folds are sure and the mass is not, the folds speak.
  const isSurer = leading?.change.verdict === 'real' && span.fat.verdict !== 'real'
  return isSurer ? leading : { change: span.fat, name: 'fat' }
}

function nameOf({ figure }: Change): string {
  if (figure === 'sum') return 'the sum of folds'
  return figure === 'percent' ? 'the percent' : (SITES[figure as keyof typeof SITES]?.name.toLowerCase() ?? 'the girth')
}

/** The first sentence: what changed, and whether to believe it. */
function whatChanged({ change, name }: { change: Change; name: string }, row: ChangeRow, since: string): string {
  const size = `${row.difference.slice(1)} ${row.unit === '%' ? 'points' : row.unit}`
  const isLoss = change.change < 0
  const went = `${capital(name)} went from ${row.then} to ${row.now} ${row.unit} since ${since}`
  switch (change.verdict) {
    case 'real':
      return name === 'fat'
        ? `${isLoss ? 'Lost' : 'Gained'} ${size} of fat since ${since}.`
        : `${capital(name)} is ${isLoss ? 'down' : 'up'} by ${size} since ${since}.`
    case 'some-sign':
      return `${went}: ${row.sign}, not sure yet.`
    case 'steady':
      return `Holding steady since ${since}.`
    case 'back':
      return `${capital(name)} moved and is back where it was in ${since}.`
    case 'one-fold':
      return `One fold alone changed${change.site ? `, ${SITES[change.site].name.toLowerCase()}` : ''}: measure it again.`
    case 'no-sign':
      return `${went}: no sign of change.`
    default:
      return `${went}: too early to say.`
  }
}

/**
 * What a coach reads first and can say aloud: what changed, whether to believe it, and what to do next. Empty where nothing
 * can be compared.
 */
export function leadSentences(span: Span, settings: LeadSettings): string[] {
  const { units, from, to, next, unasked, neutral, say } = settings
  const subject = subjectOf(span, neutral)
  if (!subject) return []
  const { verdict, visits } = subject.change
  const again = span.settlesOn ?? next
  const measureAgain = again && daysBetween(to, again) > 0 ? `measure again by ${say(again)}` : 'measure again'
  const isOpen = verdict === 'some-sign' || verdict === 'too-early' || verdict === 'no-sign'
  const folds = foldsWent(span, units)
  if (visits === 2 && isOpen && folds) return [folds, `Two visits are too few to be sure: ${measureAgain}.`]
  const first = whatChanged(subject, changeRow(subject.change, units), startSaid(from, to, say))
  const steady =
    verdict === 'real' && unasked?.steadySince && unasked.steadySince > from
      ? [`Steady since ${startSaid(unasked.steadySince, to, say)}.`]
      : []
  const then = isOpen ? [`${capital(measureAgain)}.`] : []
  return [first, ...steady, ...then]
}
