import type { CustomSet } from '../../core/protocols'
import { format, parseISO } from 'date-fns'
import type { Day } from '../../core/calendar'
import { SITES } from '../../core/sites'
import {
  figureCourses,
  figureSeries,
  oddsSaid,
  PROMISE,
  SEARCHED_START,
  summariseSpan,
  verdictSaid,
  type Change,
  type Noises,
  type Span,
} from '../../core/following'
import {
  cmToLength,
  formatChange,
  formatGirth,
  formatMass,
  formatMassChange,
  formatNumber,
  kgToMass,
  type Units,
} from '../../core/units'
import { nextDate } from '../../core/schedule'
import { withoutBody } from '../../core/safety'
import { followRecord, spanOfRecord, unaskedOf, type FollowedRecord } from '../../shared/followed-record'
import type { FollowedEnd } from '../../shared/following'
import type { ClientHistory } from '../../shared/schemas/following'
import type { ChartLine } from './chart'
import { takeHomePlan, type TakeHomePlan } from './plan'

/** A figure of the page: now, and what became of it. All text, in the reader's units. */
export interface TakeHomeFigure {
  name: string
  value: string
  unit: string
  change: string | null
  /** Verdict in words with its odds; null: nothing to compare. */
  verdict: string | null
  /** Established. */
  isReal: boolean
  colour: string
}

/** A row of the second page. */
export interface TakeHomeRow {
  name: string
  then: string
  now: string
  change: string
  verdict: string
  isReal: boolean
}

/** Everything the page to take home says. */
export interface TakeHome {
  studio: string
  client: string
  /** Days of the check-ins at both ends, where the studio is. */
  from: string | null
  to: string
  figures: TakeHomeFigure[]
  words: string[]
  lines: ChartLine[]
  shade: { from: number; to: number } | null
  /** The plan in one paragraph and one picture; null: none, or none that may stand there. */
  plan: TakeHomePlan | null
  folds: TakeHomeRow[]
  girths: TakeHomeRow[]
  lengthUnit: Units['length']
  /** How it was measured, in sentences. */
  method: string[]
  /** What "real" promises. */
  promise: string
  neutral: boolean
  /** The next visit's day, where the page has no figures. */
  next?: Day
}

/** Where a day lies on the chart's axis, whose months are counted where this runs. */
function placeOf(day: Day): number {
  return +parseISO(day)
}

const COLOURS = { fat: '#b4601a', lean: '#2f6b4f', sum: '#7a4163', weight: '#6a5140' } as const

/** What to put on a page for a client. */
export interface TakeHomeRequest {
  history: ClientHistory
  studio: string
  units: Units
  fromId: string | null
  toId: string | null
  neutral: boolean
  /** Today where the studio is, and whether it offers energy and macros. */
  today: Day
  energyOffered: boolean
  /** The studio's own sets of sites: the thread that prints knows the published ones only. */
  sets?: readonly CustomSet[]
}

/** A change with its interval as text, and what is made of it. */
function said(change: Change, say: (value: number) => string) {
  return {
    change: `${say(change.change)} (${say(change.low)} to ${say(change.high)})`,
    verdict: `${verdictSaid(change)}, ${change.odds < 1 ? 'under 1' : oddsSaid(change.odds)} x`,
    isReal: change.verdict === 'real',
  }
}
const UNSAID = { change: null, verdict: null, isReal: false }

function figuresOf(now: FollowedEnd, span: Span | null, own: Span['now'], { units }: TakeHomeRequest) {
  const mass = (name: string, colour: string, kg: number | undefined, change: Change | null): TakeHomeFigure[] =>
    kg === undefined
      ? []
      : [
          {
            name,
            colour,
            value: formatMass(kg, units),
            unit: units.mass,
            ...(change ? said(change, (by) => formatMassChange(by, units)) : UNSAID),
          },
        ]
  const sum = span?.sum?.now ?? own.sum?.value
  const shared = span?.sum && span.summed.length < now.result.session.sites.length
  const plain: TakeHomeFigure[] =
    sum === undefined
      ? []
      : [
          {
            name: shared && !span.comparability.percent ? 'Sum of shared folds' : now.facts.protocol.sumName,
            colour: COLOURS.sum,
            value: formatNumber(sum),
            unit: 'mm',
            ...(span?.sum ? said(span.sum, (by) => formatChange(by)) : UNSAID),
          },
        ]
  return [
    ...mass('Fat', COLOURS.fat, own.fat?.value, span?.fat ?? null),
    ...mass('Lean', COLOURS.lean, own.lean?.value, span?.lean ?? null),
    ...plain,
    ...mass(span?.byWeek ? 'Weight, week' : 'Weight', COLOURS.weight, own.weight?.value, span?.weight ?? null),
  ]
}

function chartLines(
  { now, span, ends, noises }: { now: FollowedEnd; span: Span | null; ends: readonly FollowedEnd[]; noises: Noises },
  { units }: TakeHomeRequest,
): ChartLine[] {
  const settings = { noises, byWeek: span?.byWeek ?? false }
  const series = figureSeries(ends, now, settings)
  const courses = figureCourses(ends, now, settings)
  const line = (
    name: string,
    colour: string,
    figure: 'fat' | 'lean' | 'sum',
    scale: (value: number) => number,
  ): ChartLine => ({
    name,
    colour,
    points: series[figure]
      .filter(({ comparable }) => comparable)
      .map(({ day, value, error }) => ({ at: placeOf(day), value: scale(value), error: scale(error) })),
    course: courses[figure].map(({ day, value, low, high }) => ({
      at: placeOf(day),
      value: scale(value),
      low: scale(low),
      high: scale(high),
    })),
  })
  const mass = (kg: number) => kgToMass(kg, units.mass)
  const sum = line(`${now.facts.protocol.sumName}, mm`, COLOURS.sum, 'sum', (mm) => mm)
  const masses = [
    line(`Lean, ${units.mass}`, COLOURS.lean, 'lean', mass),
    line(`Fat, ${units.mass}`, COLOURS.fat, 'fat', mass),
  ]
  return [...masses, sum].filter(({ points }) => points.length > 1)
}

function rowsOf(span: Span | null, units: Units): Pick<TakeHome, 'folds' | 'girths'> {
  if (!span) return { folds: [], girths: [] }
  const fold = ({ site, change }: Span['folds'][number]): TakeHomeRow => ({
    name: SITES[site].name,
    then: formatNumber(change.then),
    now: formatNumber(change.now),
    ...said(change, (by) => formatChange(by)),
  })
  const girth = (name: string, change: Change): TakeHomeRow => ({
    name,
    then: formatGirth(change.then, units),
    now: formatGirth(change.now, units),
    ...said(change, (by) => formatChange(cmToLength(by, units.length))),
  })
  return {
    folds: span.folds.map(fold),
    girths: [
      ...span.girths.map(({ site, change }) => girth(SITES[site].name, change)),
      ...span.corrected.map(({ limb, change }) => girth(`${SITES[LIMB_GIRTHS[limb]].name}, fold taken off`, change)),
    ],
  }
}

const LIMB_GIRTHS = { arm: 'arm-relaxed', thigh: 'mid-thigh-girth', calf: 'calf-girth' } as const

function methodOf(now: FollowedEnd, span: Span | null, { history }: TakeHomeRequest): string[] {
  const { estimate } = now.result
  const see = estimate && 'percent' in estimate ? estimate.seePercent : null
  return [
    `Measured by ${assessorOf(now, history)}: ${now.facts.protocol.name.toLowerCase()}.`,
    ...(!estimate
      ? []
      : [
          `Fat and lean by the equation ${estimate.equation.label}.`,
          ...(see === null
            ? []
            : [
                `Any such equation may sit ${formatNumber(see)} points of percent fat beside a person; it does so at every visit alike, so changes are surer than levels.`,
              ]),
        ]),
    ...(span?.leading
      ? [
          span.leading.noise.clients > 0
            ? `How large measuring error is was learnt from ${span.leading.noise.clients} other people measured here.`
            : 'How large measuring error is was assumed; it has not been measured here yet.',
        ]
      : []),
    ...(span?.comparability.differences.map(({ sentence }) => sentence) ?? []),
  ]
}

/** What changed in sentences, and since when it has been steady. */
function wordsOf(record: FollowedRecord, span: Span | null, units: Units): string[] {
  if (!span) return ['This is the first check-in: the next one tells a change.']
  const { steadySince } = unaskedOf(record)
  const steady = steadySince ? [`Steady since ${format(parseISO(steadySince), 'd MMMM yyyy')}.`] : []
  return [...steady, ...summariseSpan(span, units, false, record.worthwhile)]
}

/** Who measured a check-in, by name. */
function assessorOf({ record: { assessorId, startedBy } }: FollowedEnd, { errors }: ClientHistory): string {
  return errors.find((one) => one.assessorId === assessorId)?.name ?? startedBy
}

/** The page for somebody in neutral mode: no number about the body, and no word that speaks of it. */
function neutralFacts(
  { history, studio, units, today }: TakeHomeRequest,
  { client }: FollowedRecord,
  { from, now }: { from: Day | null; now: FollowedEnd },
): TakeHome {
  const trained = withoutBody(now.record.keptWords ?? '')
  return {
    studio,
    client: client.name,
    from,
    to: now.record.day,
    figures: [],
    words: trained ? [trained] : ['Thank you for coming and for the work done.'],
    lines: [],
    plan: null,
    shade: null,
    folds: [],
    girths: [],
    lengthUnit: units.length,
    method: [`Visit with ${assessorOf(now, history)}.`],
    promise: '',
    neutral: true,
    next: nextDate(now.record.day, history.schedule, today).day,
  }
}

/** Facts of a client put together for the page to take home; null when nothing has been finished yet. */
export function takeHomeFacts(request: TakeHomeRequest): TakeHome | null {
  const { history, studio, units, neutral } = request
  const record = followRecord(history)
  const { then, now, span, figures, toIndex, noises, searched } = spanOfRecord(record, request, {
    massUnit: units.mass,
  })
  if (!now || !figures) return null
  if (neutral) return neutralFacts(request, record, { from: then?.record.day ?? null, now })
  const ends = record.ends.slice(0, toIndex + 1)
  const kept = now.record.keptWords
  return {
    studio,
    client: history.client.name,
    from: then?.record.day ?? null,
    to: now.record.day,
    figures: figuresOf(now, span, figures, request),
    words: kept ? [kept] : wordsOf(record, span, units),
    lines: chartLines({ now, span, ends, noises }, request),
    plan: takeHomePlan({
      history,
      record,
      units,
      neutral: false,
      today: request.today,
      energyOffered: request.energyOffered,
      until: now.record.day,
      sayDay: (day) => format(parseISO(day), 'd MMMM yyyy'),
      placeOf,
    }),
    shade: then ? { from: placeOf(then.record.day), to: placeOf(now.record.day) } : null,
    ...rowsOf(span, units),
    lengthUnit: units.length,
    method: methodOf(now, span, request),
    promise: searched ? `${PROMISE} ${SEARCHED_START}` : PROMISE,
    neutral,
  }
}
