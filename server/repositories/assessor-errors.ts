import { subDays } from 'date-fns'
import { sql } from 'drizzle-orm'
import { ERROR_WINDOW_DAYS, siteErrorOf } from '../../core/error'
import type { SiteId } from '../../core/sites'
import { CM_PER_INCH } from '../../core/units'
import type { AssessorErrors } from '../../shared/schemas/following'
import type { Queryable } from '../db/database'
import { checkin, client, reading, staff, strike } from '../db/schema'
import { usePorts } from '../ports'
import type { Shelf } from '../ports/shelf'

/** A studio's errors are computed anew when one of its check-ins is finished or changed, and at least this often. */
const KEEP_MS = 10 * 60 * 1000
/** Where that takes longer (a million readings take a second), what was learnt stands for that time. */
const LONG_MS = 250

interface Kept {
  at: number
  errors: Promise<AssessorErrors[]>
  /** How long they took to learn; null: they are being learnt. */
  tookMs: number | null
}

const takesLong = (known: Kept | undefined) => known !== undefined && known.tookMs !== null && known.tookMs > LONG_MS

/** Says that repeats are others now: errors are learnt anew, at once where that is soon done. */
export function forgetErrors(shelf: Shelf, studioId: string): void {
  if (!takesLong(shelf.get<Kept>('errors', studioId))) shelf.forget('errors', studioId)
}

/** The error of each assessor of a studio by site, from the repeats of its finished check-ins over the window. */
export function findErrors(db: Queryable, studioId: string, now = Date.now()): Promise<AssessorErrors[]> {
  const { shelf } = usePorts()
  const known = shelf.get<Kept>('errors', studioId)
  if (known && now - known.at < KEEP_MS) return known.errors
  const began = performance.now()
  const fresh: Kept = { at: now, errors: readErrors(db, studioId, now), tookMs: null }
  fresh.errors.then(
    () => (fresh.tookMs = performance.now() - began),
    () => shelf.forget('errors', studioId),
  )
  // Nobody waits for what takes long: the ones before are given until the new ones are there.
  if (known && takesLong(known)) {
    shelf.put('errors', studioId, { ...known, at: now })
    fresh.errors.then(
      () => shelf.put('errors', studioId, fresh),
      () => undefined,
    )
    return known.errors
  }
  shelf.put('errors', studioId, fresh)
  return fresh.errors
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
