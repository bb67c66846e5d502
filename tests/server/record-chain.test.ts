import { createHash } from 'node:crypto'
import { eq, sql, type SQL } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Store } from '../../server/db/database'
import { audit, auditChain, studio } from '../../server/db/schema'
import { memoryBus } from '../../server/ports/bus'
import { memoryShelf } from '../../server/ports/shelf'
import { checkRecord, recordEnd } from '../../server/repositories/record-chain'
import { changeIn } from '../../server/write/change'
import { testStore } from '../support/database'

let store: Store
const studioId = uuid()
const who = { studioId }
const seen = (clientId = uuid()) =>
  changeIn(
    { store, ports: { bus: memoryBus(), shelf: memoryShelf() } },
    { kind: 'system', studioId },
    { kind: 'client.seen', clientId },
    () => Promise.resolve(),
  )
const check = (anchor: { seq: number; hash: string } | null = null) => checkRecord(store.database, who, anchor)

/** What somebody who can write to the database may do to it, undone afterwards. */
async function tampered(by: SQL[], then: () => Promise<void>): Promise<void> {
  const undone = new Error('undone')
  await store.database
    .transaction(async (tx) => {
      await tx.execute(sql`alter table audit disable trigger user`)
      await tx.execute(sql`alter table audit_chain disable trigger user`)
      for (const one of by) await tx.execute(one)
      const outside = store
      store = { ...store, database: tx as never }
      await then().finally(() => (store = outside))
      throw undone
    })
    .catch((error: unknown) => {
      if (error !== undone) throw error
    })
}

beforeAll(async () => {
  store = await testStore()
  await store.database.insert(studio).values({ id: studioId, name: 'Reedwater Rowing Club' })
})
afterAll(() => store.close())
beforeEach(async () => {
  for (let i = 0; i < 4; i += 1) await seen()
})

describe('the record’s chain', () => {
  it('holds every row in the order it came, each hash over the row and the hash before', async () => {
    const { entries, last, fault } = await check()
    expect([fault, entries]).toEqual([null, (await store.database.select().from(audit)).length])
    expect(await recordEnd(store.database, who)).toEqual({ seq: entries, hash: last })
    // The first, worked out here: as RFC 6234's SHA-256 of the row's parts.
    const [first] = await store.database.select().from(auditChain).where(eq(auditChain.seq, 1))
    const [row] = await store.database
      .select()
      .from(audit)
      .where(eq(audit.id, first?.auditId ?? ''))
    const text = `\n${row?.id}|${studioId}|${new Date(row?.at ?? '').toISOString()}|system||client.seen|${row?.clientId}||`
    expect(first?.hash).toBe(createHash('sha256').update(text).digest('hex'))
  })

  it('is one chain where several write at once', async () => {
    const { entries } = await check()
    await Promise.all(Array.from({ length: 12 }, () => seen()))
    expect(await check()).toMatchObject({ entries: entries + 12, fault: null })
  })

  it('is only added to: the database itself refuses to change, remove or empty it', async () => {
    for (const one of [
      sql`update audit set kind = 'client.added'`,
      sql`delete from audit`,
      sql`truncate audit cascade`,
      sql`update audit_chain set hash = repeat('0', 64)`,
      sql`delete from audit_chain`,
      sql`truncate audit_chain`,
    ])
      await expect(store.database.execute(one)).rejects.toMatchObject({ cause: { code: '55000' } })
    expect((await check()).fault).toBeNull()
  })

  it.each([
    [
      'a row that says something else',
      [sql`update audit set kind = 'client.added' where id = (select audit_id from audit_chain where seq = 2)`],
      'Entry 2 is not what was written.',
    ],
    [
      'a row at another time',
      [sql`update audit set at = at + interval '1 day' where id = (select audit_id from audit_chain where seq = 3)`],
      'Entry 3 is not what was written.',
    ],
    [
      'a row on somebody else',
      [sql`update audit set client_id = gen_random_uuid() where id = (select audit_id from audit_chain where seq = 1)`],
      'Entry 1 is not what was written.',
    ],
    ['an entry taken out', [sql`delete from audit_chain where seq = 2`], 'Entry 2 is missing.'],
    [
      'an entry and its row taken out, the rest moved up',
      [
        sql`create temporary table gone on commit drop as select audit_id from audit_chain where seq = 2`,
        sql`delete from audit_chain where seq = 2`,
        sql`delete from audit where id in (select audit_id from gone)`,
        sql`update audit_chain set seq = seq - 1 where seq = 3`,
      ],
      'Entry 2 is not what was written.',
    ],
    [
      'a row put in by hand',
      [
        sql`insert into audit (id, studio_id, at, actor, kind) select gen_random_uuid(), studio_id, now(), 'system', 'client.seen' from audit limit 1`,
      ],
      /^1 entries stand in the record and not in its chain/,
    ],
  ] as const)('shows %s', async (_, by, fault) => {
    await tampered([...by], async () => {
      expect((await check()).fault).toEqual(typeof fault === 'string' ? fault : expect.stringMatching(fault))
    })
    expect((await check()).fault).toBeNull()
  })

  it('held against what was noted elsewhere shows an end cut off, and a record written anew', async () => {
    const noted = await recordEnd(store.database, who)
    expect((await check(noted)).fault).toBeNull()
    await seen()
    expect((await check(noted)).fault).toBeNull()
    const last = noted?.seq ?? 0
    await tampered(
      [
        sql`delete from audit_chain where seq >= ${last}`,
        sql`delete from audit a where not exists (select 1 from audit_chain c where c.audit_id = a.id)`,
      ],
      async () => {
        expect((await check()).fault).toBeNull()
        expect((await check(noted)).fault).toContain('was cut off')
      },
    )
    const anew = [
      sql`create temporary table other on commit drop as select * from audit`,
      sql`delete from audit_chain`,
      sql`update audit set kind = 'record.seen' where id = (select id from other order by id limit 1)`,
      sql`select audit_chain_loose()`,
    ]
    await tampered(anew, async () => {
      expect((await check()).fault).toBeNull()
      expect((await check(noted)).fault).toContain('written anew')
    })
  })
})
