import { sql, type SQL } from 'drizzle-orm'
import type { Transaction } from '../db/database'
import { checkin, handIn, homeGirth, importedItem, landmarkNote, reading, skip, studioSet, study } from '../db/schema'

/** From this database form on, sites are split (migration 0024 is the 25th). */
export const SPLIT_SINCE = 25

/** Sets of the kinanthropometry school whose triceps was the one between acromiale and radiale. */
const KIN = sql`('kinanthropometry-8', 'kinanthropometry-8-girths', 'athlete-7', 'athlete-6', 'athlete-4', 'swimmers-4')`
const MID = sql`'(mid|half)'`
const UPPER = sql`'(buttock|glute|upper|1 ?cm)'`

/**
 * Gives facts of an older archive the sites they were truly taken at, as migration 0024 does for a database: triceps and
 * biceps by the school of their set, thigh girths by the client's landmark or "level not said".
 * @param importId an import that merged them; null: everything here came with the archive
 */
export async function splitOldSites(tx: Transaction, importId: string | null): Promise<void> {
  const came = (id: SQL) =>
    importId === null
      ? sql`true`
      : sql`${id} in (select ${importedItem.itemId} from ${importedItem} where ${importedItem.importId} = ${importId})`
  await tx.execute(sql`update ${reading} r set site = case
      when r.site = 'biceps' then 'biceps-kin' when r.site = 'triceps' then 'triceps-kin'
      when n.note ~* ${MID} then 'mid-thigh-girth' when n.note ~* ${UPPER} then 'thigh-girth' else 'thigh-unsaid' end
    from ${checkin} c left join ${landmarkNote} n on n.client_id = c.client_id and n.site = 'thigh-girth'
    where c.id = r.checkin_id and ${came(sql`c.id`)}
      and (r.site in ('biceps', 'thigh-girth') or (r.site = 'triceps' and c.protocol_id in ${KIN}))`)
  await tx.execute(sql`update ${skip} s set site = s.site || '-kin' from ${checkin} c
    where c.id = s.checkin_id and ${came(sql`c.id`)}
      and (s.site = 'biceps' or (s.site = 'triceps' and c.protocol_id in ${KIN}))`)
  await tx.execute(sql`update ${homeGirth} g set site = case when n.note ~* ${MID} then 'mid-thigh-girth' else 'thigh-unsaid' end
    from ${handIn} h left join ${landmarkNote} n on n.client_id = h.client_id and n.site = 'thigh-girth'
    where h.id = g.hand_in_id and ${came(sql`h.client_id`)} and g.site = 'thigh-girth'
      and (n.note is null or n.note !~* ${UPPER})`)
  if (importId !== null) return
  await tx.execute(sql`insert into ${landmarkNote} (client_id, site, note, changed_at)
    select client_id, 'triceps-kin', note, changed_at from ${landmarkNote} where site = 'triceps' on conflict do nothing`)
  await tx.execute(sql`update ${landmarkNote} set site = 'biceps-kin' where site = 'biceps'`)
  await tx.execute(
    sql`update ${landmarkNote} set site = 'mid-thigh-girth' where site = 'thigh-girth' and note ~* ${MID}`,
  )
  for (const table of [studioSet, study])
    await tx.execute(
      sql`update ${table} set sites = replace(sites::text, '"biceps"', '"biceps-kin"')::jsonb where sites::text like '%"biceps"%'`,
    )
  await tx.execute(sql`update ${study} set sites = replace(sites::text, '"triceps"', '"triceps-kin"')::jsonb
    where protocol_id in ${KIN} and sites::text like '%"triceps"%'`)
}
