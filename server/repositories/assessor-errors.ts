import { subDays } from 'date-fns'
import { sql } from 'drizzle-orm'
import { ERROR_WINDOW_DAYS, siteErrorOf } from '../../core/error'
import type { SiteId } from '../../core/sites'
import { CM_PER_INCH } from '../../core/units'
import type { AssessorErrors } from '../../shared/schemas/following'
import type { Queryable } from '../db/database'
import { checkin, client, reading, staff, strike } from '../db/schema'
import { usePorts } from '../ports'

/** A studio's errors are computed anew when one of its check-ins is finished or changed, and at least this often. */
const KEEP_MS = 10 * 60 * 1000

interface Kept {
  at: number
  errors: Promise<AssessorErrors[]>
}

/** The error of each assessor of a studio by site, from the repeats of its finished check-ins over the window. */
export function findErrors(db: Queryable, studioId: string, now = Date.now()): Promise<AssessorErrors[]> {
  const { shelf } = usePorts()
  const known = shelf.get<Kept>('errors', studioId)
  if (known && now - known.at < KEEP_MS) return known.errors
  const errors = readErrors(db, studioId, now)
  shelf.put('errors', studioId, { at: now, errors } satisfies Kept)
  errors.catch(() => shelf.forget('errors', studioId))
  return errors
}

/** Pools within the database what core's addRepeats pools one site at a time: tests hold the two against each other. */
async function readErrors(db: Queryable, studioId: string, now: number): Promise<AssessorErrors[]> {
  const from = subDays(now, ERROR_WINDOW_DAYS).toISOString()
  const value = sql`case ${reading.unit} when 'in' then ${reading.value} * ${CM_PER_INCH} else ${reading.value} end`
  const sites = sql`
    select ${checkin.assessorId} as assessor_id, ${reading.site} as site, count(*) as readings, sum(${value}) as total,
      var_pop(${value}) * count(*) as squares
    from ${checkin}
    join ${client} on ${client.id} = ${checkin.clientId} and ${client.studioId} = ${studioId}
    join ${reading} on ${reading.checkinId} = ${checkin.id}
    where ${checkin.startedAt} >= ${from} and ${checkin.finishedAt} is not null and ${checkin.voidedAt} is null and ${checkin.assessorId} is not null
      and ${reading.unit} not in ('kg', 'lb') and ${reading.site} <> 'height'
      and not exists (select 1 from ${strike} where ${strike.readingId} = ${reading.id})
    group by ${checkin.id}, ${reading.site}`
  const { rows } = await db.execute<{
    assessor_id: string
    name: string
    site: SiteId
    squares: number
    freedom: number
    total: number
    readings: number
  }>(sql`
    select one.assessor_id, ${staff.name} as name, one.site, sum(one.squares)::float8 as squares,
      sum(one.readings - 1)::float8 as freedom, sum(one.total)::float8 as total, sum(one.readings)::float8 as readings
    from (${sites}) one join ${staff} on ${staff.id} = one.assessor_id
    group by one.assessor_id, ${staff.name}, one.site order by one.assessor_id, one.site`)
  const byAssessor = new Map<string, AssessorErrors>()
  for (const { assessor_id: assessorId, name, site, ...repeats } of rows) {
    const own = byAssessor.get(assessorId) ?? { assessorId, name, sites: [] }
    own.sites.push({ site, ...siteErrorOf(site, repeats) })
    byAssessor.set(assessorId, own)
  }
  return [...byAssessor.values()]
}
