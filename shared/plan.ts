import type { Day } from '../core/calendar'
import { lossRefusals, type PlanContext, type PlanLine, type Target } from '../core/plan'
import { massToKg, type Units } from '../core/units'
import type { FollowedEnd } from './following'
import type { ClientHistory } from './schemas/following'
import type { PlanRecord, TargetUnit } from './schemas/plan'

/** A target as core takes it: points, kg or mm. */
export function targetOf({
  kind,
  value,
  perWeek,
  unit,
}: Pick<PlanRecord, 'kind' | 'value' | 'perWeek' | 'unit'>): Target {
  const own = (number: number) => (unit === 'lb' || unit === 'kg' ? massToKg(number, unit) : number)
  return { kind, value: own(value), perWeek: own(perWeek) }
}

/** The unit a target of a kind is typed in by somebody who reads masses in theirs. */
export function unitOfTarget(kind: Target['kind'], units: Units): TargetUnit {
  return kind === 'percent' ? '%' : kind === 'sum' ? 'mm' : units.mass
}

/** What core checks a plan of this client against. */
export function planContext(
  start: FollowedEnd,
  { client }: Pick<ClientHistory, 'client'>,
  units: Units,
  today: Day,
): PlanContext {
  return { start, person: client, today, units }
}

/** Why a plan to lose is not shown any more: a caution noted since allows none. Null: it may be shown. */
export function planBarred(line: Pick<PlanLine, 'from' | 'to'>, context: PlanContext): string | null {
  return line.to < line.from ? (lossRefusals(context)[0] ?? null) : null
}

/** The plan that counts; null when there is none or it has ended. */
export function currentPlan({ plans }: Pick<ClientHistory, 'plans'>): PlanRecord | null {
  // A history kept on the device by an earlier version holds none.
  const newest = (plans as PlanRecord[] | undefined)?.[0]
  return newest && !newest.endedAt ? newest : null
}
