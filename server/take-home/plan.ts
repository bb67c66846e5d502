import type { Day } from '../../core/calendar'
import { againstPlan, courseDays, forecastAt, planLine, type PlanLine } from '../../core/plan'
import { Z_95 } from '../../core/error'
import { formatMass, formatNumber, kgToMass, type Units } from '../../core/units'
import type { FollowedRecord } from '../../shared/followed-record'
import { noisesAt } from '../../shared/followed-record'
import { currentPlan, planBarred, planContext, targetOf } from '../../shared/plan'
import type { PlanRecord } from '../../shared/schemas/plan'
import type { ClientHistory } from '../../shared/schemas/following'
import type { ChartLine } from './chart'

/** The plan on the page to take home: one paragraph and one picture. */
export interface TakeHomePlan {
  said: string
  line: ChartLine
}

/** What it is put together from. */
export interface PlanRequest {
  history: ClientHistory
  record: FollowedRecord
  units: Units
  neutral: boolean
  /** Today where the studio is, and whether it offers energy and macros. */
  today: Day
  energyOffered: boolean
  /** The day the page reaches to. */
  until: Day
  sayDay: (day: Day) => string
  placeOf: (day: Day) => number
}

const NAMES = { percent: 'percent fat', fat: 'fat mass', weight: 'weight', sum: 'the sum of folds' } as const
const STANDINGS = { on: 'on the plan', ahead: 'ahead of the plan', behind: 'behind the plan' } as const
/** Points a planned course is drawn through. */
const STEPS = 16

function shown(kind: PlanLine['kind'], units: Units) {
  const mass = kind === 'fat' || kind === 'weight'
  return {
    unit: kind === 'percent' ? '%' : kind === 'sum' ? 'mm' : units.mass,
    paceUnit: kind === 'percent' ? 'points' : kind === 'sum' ? 'mm' : units.mass,
    scale: (value: number) => (mass ? kgToMass(value, units.mass) : value),
    say: (value: number, decimals = 1) => (mass ? formatMass(value, units, decimals) : formatNumber(value, decimals)),
  }
}

/** A plan that may stand on a client's page: not hidden by neutral mode, and no loss for whom none is planned. */
function allowedPlan({
  history,
  record,
  units,
  neutral,
  today,
}: PlanRequest): { plan: PlanRecord; line: PlanLine } | null {
  const plan = currentPlan(history)
  const start = record.ends.find((end) => end.record.id === plan?.checkinId)
  if (!plan || !start || neutral) return null
  if (history.suspensions?.some(({ about, subjectId }) => about === 'plan' && subjectId === plan.id)) return null
  const line = planLine(targetOf(plan), start, plan.energy ?? null)
  if (!line) return null
  return planBarred(line, planContext(start, history, units, today)) === null ? { plan, line } : null
}

/** The plan that counts, put for a client; null where there is none or none may stand there. */
export function takeHomePlan(request: PlanRequest): TakeHomePlan | null {
  const found = allowedPlan(request)
  if (!found) return null
  const { plan, line } = found
  const { record, units, until, energyOffered, sayDay, placeOf } = request
  const { unit, paceUnit, scale, say } = shown(line.kind, units)
  const since = record.ends.slice(record.ends.findIndex((end) => end.record.id === plan.checkinId))
  const held = since.slice(1).flatMap((end, i) => {
    const against =
      end.record.day <= until ? againstPlan(line, since.slice(0, i + 2), { noises: noisesAt(record, end) }) : null
    return against ?? []
  })
  const latest = held.at(-1)
  const eaten =
    line.energy && energyOffered ? ` It goes with about ${formatNumber(line.energy.intakeKcal, 0)} kcal a day.` : ''
  const stands = latest ? ` At the last check-in: ${STANDINGS[latest.standing]}.` : ''
  const planned = courseDays(line.startDay, line.endsOn, STEPS).map((day) => {
    const { planned: value, band } = forecastAt(line, day)
    return { at: placeOf(day), value: scale(value), low: scale(value - band), high: scale(value + band) }
  })
  return {
    said: `The plan: ${NAMES[line.kind]} from ${say(line.from)} to ${say(line.to)} ${unit} by about ${sayDay(line.endsOn)}, ${say(line.perWeek, 2)} ${paceUnit} a week.${eaten}${stands}`,
    line: {
      name: `${NAMES[line.kind].charAt(0).toUpperCase()}${NAMES[line.kind].slice(1)}, ${unit}: planned (line) and measured (dots)`,
      colour: { percent: '#b4601a', fat: '#b4601a', weight: '#6a5140', sum: '#7a4163' }[line.kind],
      points: [
        { at: placeOf(line.startDay), value: scale(line.from), error: scale(line.startError) },
        ...held.map(({ day, measured, change }) => ({
          at: placeOf(day),
          value: scale(measured),
          error: scale(Z_95 * change.noise.sd),
        })),
      ],
      course: planned,
    },
  }
}
