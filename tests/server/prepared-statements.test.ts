import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { PGlite, type QueryOptions, type Results } from '@electric-sql/pglite'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { layTemplate } from '../../scripts/lib/template.mjs'
import { GuardedClient } from '../../server/db/guarded-client'

const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-prepared-'))
let client: GuardedClient
beforeAll(async () => {
  layTemplate('empty', folder)
  client = new GuardedClient({ dataDir: join(folder, 'postgres') })
  await client.waitReady
  await client.exec('create table pinch (id int primary key, word text not null, mm numeric, at date)')
})
afterAll(async () => {
  await client.close()
  rmSync(folder, { recursive: true })
})

/** The same question asked as the database's own client asks it, in six exchanges. */
const unprepared = (text: string, values: unknown[], options?: QueryOptions): Promise<Results> =>
  // Its own way, whatever is laid over it.
  PGlite.prototype.query.call(client, text, values, options) as Promise<Results>

const code = (asked: Promise<unknown>) =>
  asked.then(
    () => 'none',
    (error: { code?: string }) => error.code,
  )
const prepared = async () =>
  Number(
    (await client.query<{ n: number }>("select count(*) as n from pg_prepared_statements where name like 'own%'"))
      .rows[0]?.n,
  )

describe('a prepared statement', () => {
  it.each<[string, unknown[], QueryOptions?]>([
    ['select $1::int as a, $2::text as b, $3::boolean as c', [7, "it's “so”", true]],
    ['select $1::jsonb as a, $2::json as b', [{ folds: [9.5, null], name: 'Maren' }, null]],
    ["select 'null'::jsonb as a, null::jsonb as b, '[]'::jsonb as c", []],
    [
      'select $1::int[] as a, $2::text[] as b',
      [
        [1, 2, 3],
        ['a,b', '"c"', null],
      ],
    ],
    [
      'select $1::bytea as a, $2::bigint as b, $3::numeric as c',
      [new Uint8Array([0, 255, 7]), 9_007_199_254_740_993n, 1.5],
    ],
    ['select $1::timestamptz as a, $2::date as b', ['2026-11-27T06:00:00Z', '2026-11-27']],
    [
      'select $1::timestamptz as a',
      ['2026-11-27T06:00:00Z'],
      { rowMode: 'array', parsers: { 1184: (value) => value } },
    ],
    ['select i, i * $1::int as twice from generate_series(1, 300) as i', [2], { rowMode: 'array' }],
    ['select 1 as same, 2 as same', []],
    ['select', []],
    ['select id from pinch where id = any($1)', [[1, 2]]],
  ])('answers “%s” as the database’s own client does, the first time and later', async (text, values, options) => {
    const expected = await unprepared(text, values, options)
    for (let i = 0; i < 7; i += 1) {
      const { rows, fields } = await client.query(text, [...values], options)
      expect({ rows, fields }).toEqual({ rows: expected.rows, fields: expected.fields })
    }
  })

  it('counts the rows it touched', async () => {
    const insert = 'insert into pinch (id, word) values ($1, $2) on conflict do nothing'
    expect((await client.query(insert, [1, 'triceps'])).affectedRows).toBe(1)
    expect((await client.query(insert, [1, 'triceps'])).affectedRows).toBe(0)
    expect((await client.query('update pinch set mm = $1 returning id, mm', [9.5])).rows).toEqual([
      { id: 1, mm: '9.5' },
    ])
    expect((await client.query('delete from pinch where id = $1', [1])).affectedRows).toBe(1)
  })

  it('that fails says why, and harms neither what is asked next nor the transaction around the next', async () => {
    const insert = 'insert into pinch (id, word) values ($1, $2)'
    await client.query(insert, [2, 'thigh'])
    const refused = await client.query(insert, [2, 'thigh']).catch((error: unknown) => error)
    expect(refused).toMatchObject({ code: '23505', constraint: 'pinch_pkey', query: insert })
    expect(await code(client.query(insert, [3, null]))).toBe('23502')
    expect(await code(client.query('select * from nowhere'))).toBe('42P01')
    expect(await code(client.query('select $1::int', ['seven']))).toBe('22P02')
    const undone = client.transaction(async (tx) => {
      await tx.query(insert, [4, 'calf'])
      await tx.query(insert, [2, 'thigh'])
    })
    expect(await code(undone)).toBe('23505')
    await client.transaction(async (tx) => void (await tx.query(insert, [5, 'chest'])))
    expect((await client.query('select id from pinch order by id')).rows).toEqual([{ id: 2 }, { id: 5 }])
  })

  it('keeps transactions asked for at once apart', async () => {
    const counted = async () => (await client.query<{ n: number }>('select count(*)::int as n from pinch')).rows[0]?.n
    const before = (await counted()) ?? 0
    await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        client
          .transaction(async (tx) => {
            await tx.query('insert into pinch (id, word) values ($1, $2)', [100 + i, 'abdominal'])
            if (i % 2 === 1) throw new Error('given up')
          })
          .catch(() => undefined),
      ),
    )
    expect(await counted()).toBe(before + 10)
  })

  it('is made anew where its table has another column since, or where it is gone', async () => {
    const all = 'select * from pinch where id = $1'
    expect(Object.keys((await client.query<object>(all, [2])).rows[0] ?? {})).toHaveLength(4)
    await client.exec('alter table pinch add column side text')
    expect(Object.keys((await client.query<object>(all, [2])).rows[0] ?? {})).toHaveLength(5)
    await client.exec('deallocate all')
    expect((await client.query(all, [2])).rows).toHaveLength(1)
    // Within a transaction nothing can be asked again; the next one goes well.
    await client.exec('alter table pinch drop column side')
    const within = () => client.transaction(async (tx) => (await tx.query(all, [2])).rows)
    expect(await code(within())).toBe('0A000')
    expect(await within()).toHaveLength(1)
  })

  it('makes room once five hundred are kept, and is prepared again when it is wanted', async () => {
    for (let i = 0; i < 560; i += 1) expect((await client.query(`select ${i} as n`)).rows).toEqual([{ n: i }])
    expect(await prepared()).toBeLessThanOrEqual(500)
    expect(await prepared()).toBeGreaterThan(450)
    expect((await client.query('select 0 as n')).rows).toEqual([{ n: 0 }])
  })

  it('is not made of what brings many rows in, and hardly comes again', async () => {
    const before = await prepared()
    const rows = Array.from({ length: 900 }, (_, i) => `(${1_000 + i}, 'midaxillary')`).join(',')
    expect((await client.query(`insert into pinch (id, word) values ${rows}`)).affectedRows).toBe(900)
    expect(await prepared()).toBe(before)
  })
})
