import type { CustomSet } from '../../core/protocols'
import { format, parseISO } from 'date-fns'
import type { Day } from '../../core/calendar'
import { SITES } from '../../core/sites'
import {
  changeRow,
  figureCourses,
  figureSeries,
  figureShown,
  leadSentences,
  PROMISE,
  SEARCHED_START,
  unitOf,
  type Change,
  type FigureId,
  type Noises,
  type Span,
} from '../../core/following'
import { formatNumber, kgToMass, type Units } from '../../core/units'
import { nextDate } from '../../core/schedule'
import { withoutBody } from '../../core/safety'
import { assessorSaid, BROUGHT_IN } from '../../shared/assessor-said'
import { followRecord, spanOfRecord, unaskedOf, type FollowedRecord } from '../../shared/followed-record'
import type { FollowedEnd } from '../../shared/following'
import type { ClientHistory } from '../../shared/schemas/following'
import type { ChartLine } from './chart'
import { takeHomePlan, type TakeHomePlan } from './plan'

/** A row of a page: then, now, their difference and its sign. All text, in the reader's units. */
export interface TakeHomeRow {
  name: string
  /** Null: nothing to compare. */
  then: string | null
  now: string
  unit: string
  /** The difference with its unit; null: nothing to compare. */
  difference: string | null
  sign: string | null
  /** Why the sign is what it is. */
  reason: string | null
  isReal: boolean
}

/** The row that leads the page, in the colour of its figure. */
export interface TakeHomeFigure extends TakeHomeRow {
  figure: FigureId
  colour: string
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
  /** The next visit's day. */
  next: Day
}

/** Where a day lies on the chart's axis, whose months are counted where this runs. */
function placeOf(day: Day): number {
  return +parseISO(day)
}

const COLOURS = { fat: '#b4601a', lean: '#2f6b4f', sum: '#7a4163', weight: '#6a5140', girth: '#46607a' } as const

/** What to put on a page for a client. */
export interface TakeHomeRequest {
  history: ClientHistory
  studio: string
  units: Units
  fromId: string | null
  toId: string | null
  neutral: boolean
  /** The figure the page leads with; left out: the usual one. */
  figure?: FigureId | undefined
  /** Today where the studio is, and whether it offers energy and macros. */
  today: Day
  energyOffered: boolean
  /** The studio's own sets of sites: the thread that prints knows the published ones only. */
  sets?: readonly CustomSet[]
}

/** The row of a change; without one, what is there now. */
function rowOf(name: string, figure: FigureId, value: number, change: Change | null, units: Units): TakeHomeRow {
  if (!change) {
    const now = figureShown(figure, value, units)
    const { unit } = unitOf(figure, units)
    return { name, then: null, now, unit, difference: null, sign: null, reason: null, isReal: false }
  }
  const row = changeRow(change, units)
  return {
    name,
    then: row.then,
    now: row.now,
    unit: row.unit,
    difference: `${row.difference} ${row.differenceUnit}`,
    sign: row.sign,
    reason: row.reason,
    isReal: row.verdict === 'real',
  }
}

/** The figures a page may lead with, the usual one first; the one the coach chose leads. */
function figuresOf(now: FollowedEnd, span: Span | null, own: Span['now'], { units, figure }: TakeHomeRequest) {
  const shared = span?.sum && span.summed.length < now.result.session.sites.length
  const sumName = shared && !span.comparability.percent ? 'Sum of shared folds' : now.facts.protocol.sumName
  const girth = span?.girths[0]
  const all: [FigureId, string, string, number | undefined, Change | null][] = [
    ['fat', 'Fat', COLOURS.fat, own.fat?.value, span?.fat ?? null],
    ['sum', sumName, COLOURS.sum, span?.sum?.now ?? own.sum?.value, span?.sum ?? null],
    ['lean', 'Lean', COLOURS.lean, own.lean?.value, span?.lean ?? null],
    ['weight', 'Weight', COLOURS.weight, own.weight?.value, span?.weight ?? null],
    ['percent', 'Fat, percent', COLOURS.fat, own.percent?.value, span?.percent ?? null],
    ...(girth ? [[girth.site, SITES[girth.site].name, COLOURS.girth, girth.change.now, girth.change] as const] : []),
  ].map((one) => [...one] as [FigureId, string, string, number | undefined, Change | null])
  const known = all.flatMap(([id, name, colour, value, change]): TakeHomeFigure[] =>
    value === undefined ? [] : [{ figure: id, colour, ...rowOf(name, id, value, change, units) }],
  )
  return known.sort((a, b) => Number(b.figure === figure) - Number(a.figure === figure))
}

function chartLines(
  { now, ends, noises }: { now: FollowedEnd; ends: readonly FollowedEnd[]; noises: Noises },
  { units }: TakeHomeRequest,
): ChartLine[] {
  const settings = { noises }
  const series = figureSeries(ends, now, settings)
  const courses = figureCourses(ends, now, settings)
  const line = (
    name: string,
    colour: string,
    figure: 'fat' | 'lean' | 'sum',
    scale: (value: number) => number,
  ): ChartLine => ({
    figure,
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
  const row = (name: string, change: Change) => rowOf(name, change.figure, change.now, change, units)
  return {
    folds: span.folds.map(({ site, change }) => row(SITES[site].name, change)),
    girths: [
      ...span.girths.map(({ site, change }) => row(SITES[site].name, change)),
      ...span.corrected.map(({ limb, change }) => row(`${SITES[LIMB_GIRTHS[limb]].name}, fold taken off`, change)),
    ],
  }
}

const LIMB_GIRTHS = { arm: 'arm-relaxed', thigh: 'mid-thigh-girth', calf: 'calf-girth' } as const

/** Who measured a check-in, as a sentence begins. */
function measuredBy({ record }: FollowedEnd, history: ClientHistory): string {
  const who = assessorSaid(record, history)
  return who === BROUGHT_IN ? 'Brought in from a file' : `Measured by ${who}`
}

function methodOf(now: FollowedEnd, span: Span | null, { history }: TakeHomeRequest): string[] {
  const { estimate } = now.result
  const see = estimate && 'percent' in estimate ? estimate.seePercent : null
  return [
    `${measuredBy(now, history)}: ${now.facts.protocol.name.toLowerCase()}.`,
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

/** What changed, as the coach reads it first; at a first check-in what comes next. */
function wordsOf(record: FollowedRecord, { then, now, span }: Spanned, units: Units, next: Day): string[] {
  if (!span || !then) return ['This is the first check-in: the next one shows a change.']
  const isNewest = now === record.ends.at(-1)
  const lead = leadSentences(span, {
    units,
    from: then.record.day,
    to: now.record.day,
    next: isNewest ? next : null,
    unasked: isNewest ? unaskedOf(record) : null,
    neutral: false,
    say: (day) => format(parseISO(day), 'd MMMM yyyy'),
  })
  return lead.length > 0 ? lead : ['The two check-ins cannot be compared.']
}

interface Spanned {
  then: FollowedEnd | null
  now: FollowedEnd
  span: Span | null
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
    method: [`${measuredBy(now, history).replace('Measured by', 'Visit with')}.`],
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
  const next = nextDate(record.ends.at(-1)?.record.day ?? null, history.schedule, request.today).day
  return {
    studio,
    client: history.client.name,
    from: then?.record.day ?? null,
    to: now.record.day,
    figures: figuresOf(now, span, figures, request),
    words: kept ? [kept] : wordsOf(record, { then, now, span }, units, next),
    next,
    lines: chartLines({ now, ends, noises }, request),
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
