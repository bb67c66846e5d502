import { addDays } from '#core/calendar'
import { caliperOf } from '#core/composition/facts'
import type { PlanLine } from '#core/plan'
import { kgToMass, type Units } from '#core/units'
import { assessorSaid } from '#shared/assessor-said'
import type { FollowedEnd } from '#shared/following'
import type { ClientHistory } from '#shared/schemas/following'

/** Something that happened on the way, marked on the chart. */
export interface ChartEvent {
  at: number
  words: string
}

/** Races and shows, the end of a pause, and changes of assessor or caliper between the first check-in and the last. */
export function chartEvents(ends: readonly FollowedEnd[], history: ClientHistory): ChartEvent[] {
  const [first, last] = [ends[0], ends.at(-1)]
  if (!first || !last) return []
  const { schedule, calipers } = history
  const changes = ends.flatMap((end, i): ChartEvent[] => {
    const before = ends[i - 1]
    if (!before) return []
    const at = Date.parse(end.record.startedAt)
    const [was, is] = [before, end].map(({ facts }) => caliperOf(facts))
    const caliper = calipers.find(({ id }) => id === is)?.name
    return [
      ...(end.record.assessorId && before.record.assessorId && end.record.assessorId !== before.record.assessorId
        ? [{ at, words: `${assessorSaid(end.record, history)} measures` }]
        : []),
      ...(was && is && was !== is ? [{ at, words: caliper ? `another caliper, ${caliper}` : 'another caliper' }] : []),
    ]
  })
  const dated = [
    ...schedule.events.map(({ day, name }) => ({ at: Date.parse(day), words: name })),
    ...(schedule.pause
      ? [{ at: Date.parse(schedule.pause.until), words: `pause until then, ${schedule.pause.reason}` }]
      : []),
  ].filter(({ at }) => at >= Date.parse(first.record.startedAt) && at <= Date.parse(last.record.startedAt))
  return [...changes, ...dated].sort((a, b) => a.at - b.at)
}

/** The way a plan means a figure to go, as the chart draws it. */
export interface DrawnPlan {
  figure: 'fat' | 'sum'
  points: [at: number, value: number][]
}

/** Days between two points of a plan's line. */
const PLAN_STEP = 14

/** The line of a plan up to the last check-in; null where the chart does not draw its figure. */
export function drawnPlan(line: PlanLine | null, until: string, units: Units): DrawnPlan | null {
  const { kind } = line ?? {}
  if (!line || (kind !== 'fat' && kind !== 'sum')) return null
  const last = line.endsOn < until ? line.endsOn : until
  const days: string[] = []
  for (let day = line.startDay; day < last; day = addDays(day, PLAN_STEP)) days.push(day)
  const scale = (value: number) => (kind === 'sum' ? value : kgToMass(value, units.mass))
  const points = [...days, last].map((day): [number, number] => [Date.parse(day), scale(line.course.at(day).value)])
  return points.length > 1 ? { figure: kind, points } : null
}
