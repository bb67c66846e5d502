import { subDays } from 'date-fns'
import { and, count, countDistinct, desc, eq, gte, isNotNull, isNull, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { analyseStudy, siteProgress, STRETCH_DAYS, STRETCHES, type RepeatsAt } from '../../core/study'
import { CM_PER_INCH } from '../../core/units'
import type { Progress, TrainingPlan, trainingPlanInput } from '../../shared/schemas/progress'
import type { Queryable, Transaction } from '../db/database'
import { checkin, client, reading, staff, strike, trainingPlan } from '../db/schema'
import { storeOnce } from '../write/same-again'
import { listRounds } from './drills'
import type { InStudio, SignedIn } from './staff'
import { findStudy, listFeeding } from './studies'
import { studyFacts } from './study-facts'

/** Repeats of a studio's assessors by site and season, pooled within the database. */
async function repeatsOf(db: Queryable, studioId: string, now: number): Promise<Map<string, RepeatsAt[]>> {
  const from = subDays(now, STRETCH_DAYS * STRETCHES).toISOString()
  const at = new Date(now).toISOString()
  const value = sql`case ${reading.unit} when 'in' then ${reading.value} * ${CM_PER_INCH} else ${reading.value} end`
  const stretch = sql`floor(extract(epoch from ${at}::timestamptz - min(${checkin.startedAt})) / ${STRETCH_DAYS * 86400}::float8)`
  const { rows } = await db.execute<{ assessor_id: string } & { [Key in keyof RepeatsAt]: RepeatsAt[Key] }>(sql`
    select one.assessor_id, one.site, one.stretch::int as stretch, sum(one.squares)::float8 as squares,
      sum(one.readings - 1)::float8 as freedom, sum(one.total)::float8 as total, sum(one.readings)::float8 as readings
    from (
      select ${checkin.assessorId} as assessor_id, ${reading.site} as site, ${stretch} as stretch, count(*) as readings,
        sum(${value}) as total, var_pop(${value}) * count(*) as squares
      from ${checkin}
      join ${client} on ${client.id} = ${checkin.clientId} and ${client.studioId} = ${studioId}
      join ${reading} on ${reading.checkinId} = ${checkin.id}
      where ${checkin.startedAt} >= ${from} and ${checkin.startedAt} <= ${at} and ${checkin.finishedAt} is not null
        and ${checkin.voidedAt} is null and ${checkin.assessorId} is not null
        and ${reading.unit} not in ('kg', 'lb') and ${reading.site} <> 'height'
        and not exists (select 1 from ${strike} where ${strike.readingId} = ${reading.id})
      group by ${checkin.id}, ${reading.site}
    ) one
    group by one.assessor_id, one.site, one.stretch order by one.assessor_id, one.site`)
  const byAssessor = new Map<string, RepeatsAt[]>()
  for (const { assessor_id: id, ...one } of rows) byAssessor.set(id, [...(byAssessor.get(id) ?? []), one])
  return byAssessor
}

/** Longest a visit counts for, hours: one left open over night is none of twelve. */
const LONGEST_HOURS = 2

async function workOf(db: Queryable, studioId: string) {
  const hours = sql<number>`coalesce(sum(least(extract(epoch from ${checkin.finishedAt} - ${checkin.startedAt}) / 3600, ${LONGEST_HOURS}::float8)), 0)::float8`
  return db
    .select({
      staffId: checkin.assessorId,
      people: countDistinct(checkin.clientId),
      checkins: count(checkin.id),
      hours,
    })
    .from(checkin)
    .innerJoin(client, eq(client.id, checkin.clientId))
    .where(and(eq(client.studioId, studioId), isNotNull(checkin.finishedAt), isNull(checkin.voidedAt)))
    .groupBy(checkin.assessorId)
}

/** Bias of each assessor against the reference of the newest study they stand in. */
async function biasesOf(db: Queryable, studioId: string): Promise<Map<string, NonNullable<Progress['bias']>>> {
  const found = new Map<string, NonNullable<Progress['bias']>>()
  for (const { id, closedOn } of await listFeeding(db, studioId)) {
    const stored = await findStudy(db, { studioId }, id)
    if (stored?.kind !== 'assessors') continue
    const { sides } = analyseStudy(await studyFacts(db, studioId, stored))
    const reference = stored.pens.find((pen) => pen.id === stored.referencePenId)?.name ?? ''
    for (const pen of stored.pens) {
      if (!pen.staffId || pen.id === stored.referencePenId) continue
      const sites = sides.flatMap(({ site, pens }) => {
        const ratio = pens.find(({ penId }) => penId === pen.id)?.ratio
        return ratio
          ? [{ site, percent: 100 * (ratio.value - 1), low: 100 * (ratio.low - 1), high: 100 * (ratio.high - 1) }]
          : []
      })
      if (sites.length > 0) found.set(pen.staffId, { reference, day: closedOn, sites })
    }
  }
  return found
}

async function planOf(db: Queryable, staffId: string): Promise<TrainingPlan | null> {
  const [plan] = await db
    .select({
      people: trainingPlan.people,
      fromDay: trainingPlan.fromDay,
      byDay: trainingPlan.byDay,
      note: trainingPlan.note,
    })
    .from(trainingPlan)
    .where(eq(trainingPlan.staffId, staffId))
    .orderBy(desc(trainingPlan.at), desc(trainingPlan.id))
    .limit(1)
  if (!plan) return null
  const [measured] = await db
    .select({ people: countDistinct(checkin.clientId) })
    .from(checkin)
    .where(
      and(
        eq(checkin.assessorId, staffId),
        gte(checkin.day, plan.fromDay),
        isNotNull(checkin.finishedAt),
        isNull(checkin.voidedAt),
      ),
    )
  return { ...plan, done: measured?.people ?? 0 }
}

/** How the assessors of a studio stand: all of them, or one. */
export async function findProgress(
  db: Queryable,
  { studioId }: InStudio,
  { only, now = Date.now() }: { only?: string | undefined; now?: number } = {},
): Promise<Progress[]> {
  const people = await db
    .select({ id: staff.id, name: staff.name, role: staff.role })
    .from(staff)
    .where(and(eq(staff.studioId, studioId), eq(staff.active, true), ...(only ? [eq(staff.id, only)] : [])))
    .orderBy(staff.name)
  const [repeats, work, biases] = [
    await repeatsOf(db, studioId, now),
    await workOf(db, studioId),
    await biasesOf(db, studioId),
  ]
  const found: Progress[] = []
  for (const { id, name, role } of people) {
    // Who only writes down measures nobody.
    if (role === 'recorder') continue
    const own = work.find(({ staffId }) => staffId === id)
    found.push({
      staffId: id,
      name,
      people: own?.people ?? 0,
      checkins: own?.checkins ?? 0,
      hours: own?.hours ?? 0,
      sites: siteProgress(repeats.get(id) ?? []),
      bias: biases.get(id) ?? null,
      drills: await listRounds(db, id),
      plan: await planOf(db, id),
    })
  }
  return found
}

/** Sets a plan of training; the newest counts. Throws IdTaken. */
export function addTrainingPlan(
  tx: Transaction,
  who: SignedIn,
  input: z.output<typeof trainingPlanInput> & { fromDay: string },
): Promise<number> {
  const row = { ...input, studioId: who.studioId, setBy: who.staffId }
  return storeOnce(tx, trainingPlan, trainingPlan.id, [row], ['staffId', 'people', 'byDay'])
}
