import type { Day } from '../../core/calendar'
import { ageInYears } from '../../core/calendar'
import type { Flag } from '../../core/cautions'
import { courseOf, safetyOf } from '../../core/plan'
import { courseFindings, isPreparing, type Course, type Finding, type SafetyFacts } from '../../core/safety'
import { targetOf } from '../../shared/plan'
import type { FollowedEnd } from '../../shared/following'
import type { Client } from '../../shared/schemas/client'
import type { PlanUnderWay } from './plans'

type Person = Pick<Client, 'sex' | 'birthDate' | 'heightCm' | 'preparation'> & { flags: readonly Flag[] }

/** What the gate asks about somebody, kept until one of their facts changes. Days are not in it: ages move by themselves. */
export interface KeptSafety {
  person: Person
  measured: Pick<SafetyFacts, 'heightCm' | 'weightKg' | 'percent'>
  /** The plan under way, where it leads from the newest check-in, and what the gate said when it was agreed. */
  plan: { id: string; course: Course; then: Finding[]; decided: readonly string[] } | null
}

/** The gate's facts about somebody on a day. */
export function safetyOn({ person, measured }: KeptSafety, today: Day): SafetyFacts {
  return {
    sex: person.sex,
    ageYears: ageInYears(person.birthDate, today),
    ...measured,
    flags: person.flags,
    preparing: isPreparing(person.preparation, today),
  }
}

/** Puts together what is kept, from composed check-ins, oldest first. */
export function keptSafety(
  ends: readonly FollowedEnd[],
  {
    person,
    flags,
    plan,
  }: { person: Person; flags: readonly { flag: Flag; since: string }[]; plan: PlanUnderWay | null },
): KeptSafety {
  const now = ends.at(-1)
  const start = plan && ends.find((end) => end.record.id === plan.checkinId)
  const about = (end: FollowedEnd, at: string, known: readonly Flag[]) => ({
    start: end,
    person: { ...person, flags: known },
    today: at.slice(0, 10),
    units: { mass: 'kg', length: 'cm' } as const,
  })
  const none = { heightCm: person.heightCm, weightKg: null, percent: null }
  if (!now) return { person, measured: none, plan: null }
  const { heightCm, weightKg, percent } = safetyOf(about(now, now.record.day, person.flags))
  const measured = { heightCm, weightKg, percent }
  if (!plan || !start) return { person, measured, plan: null }
  const target = targetOf(plan)
  // What was known when it was agreed: flags noted since are new.
  const then = about(
    start,
    plan.at,
    flags.filter(({ since }) => Date.parse(since) <= Date.parse(plan.at)).map(({ flag }) => flag),
  )
  const agreed = courseOf(target, then)
  const course = {
    ...courseOf(target, { ...then, start: now }),
    // A pace is agreed on the weight it started from.
    startKg: agreed.startKg,
    weekKg: agreed.weekKg,
    weekPoints: agreed.weekPoints ?? null,
    direction: agreed.direction,
  }
  return {
    person,
    measured,
    plan: { id: plan.id, course, then: courseFindings(safetyOf(then), agreed), decided: plan.decided },
  }
}
