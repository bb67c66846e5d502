import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { drizzle } from 'drizzle-orm/pglite'
import { migrate } from 'drizzle-orm/pglite/migrator'
import { v7 as uuid } from 'uuid'
import { afterAll, describe, expect, it } from 'vitest'
import type { Transaction } from '../../server/db/database'
import { splitOldSites } from '../../server/exchange/old-sites'
import { layTemplate } from '../../scripts/lib/template.mjs'

const ALL = resolve(import.meta.dirname, '../../server/db/migrations')
const made: string[] = []
afterAll(() => made.forEach((folder) => rmSync(folder, { recursive: true })))

/** The migrations up to one, in a folder of their own. */
function upTo(last: number): string {
  const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-migrations-'))
  made.push(folder)
  cpSync(ALL, folder, { recursive: true })
  const file = join(folder, 'meta/_journal.json')
  const journal = JSON.parse(readFileSync(file, 'utf8')) as { entries: { idx: number }[] }
  writeFileSync(file, JSON.stringify({ ...journal, entries: journal.entries.filter(({ idx }) => idx <= last) }))
  return folder
}

describe('a folder kept by an earlier version', () => {
  it('brings sentences that were stored to ids, and keeps other words', async () => {
    const data = mkdtempSync(join(tmpdir(), 'oak-pinch-earlier-'))
    made.push(data)
    layTemplate('empty', data)
    const client = new PGlite(join(data, 'postgres'))
    // Emptied, because making a database takes four seconds.
    await client.exec('drop schema public cascade; drop schema drizzle cascade; create schema public')
    const database = drizzle(client)
    await migrate(database, { migrationsFolder: upTo(6) })
    const [studio, staff, person, checkin] = [uuid(), uuid(), uuid(), uuid()]
    await client.query(`insert into studio (id, name) values ($1, 'Reedwater')`, [studio])
    await client.query(
      `insert into staff (id, studio_id, name, email, password_hash, role) values ($1, $2, 'Runa', 'r@reed.example', 'x', 'lead')`,
      [staff, studio],
    )
    await client.query(
      `insert into client (id, studio_id, name, sex, birth_date, usual_side) values ($1, $2, 'Maren', 'female', '1990-01-01', 'right')`,
      [person, studio],
    )
    await client.query(
      `insert into checkin (id, client_id, protocol_id, side, started_by, started_at, day, conditions)
       values ($1, $2, 'laboratory-7', 'right', $3, now(), current_date, $4)`,
      [checkin, person, staff, JSON.stringify({ training: 'after training', food: 'just before', skin: 'dry' })],
    )
    for (const [site, reason] of [
      ['chest', 'no time today'],
      ['thigh', 'dressing, wound or strap in the way'],
      ['triceps', 'A graze.'],
    ]) {
      await client.query(
        `insert into skip (id, checkin_id, site, reason, at, skipped_by) values ($1, $2, $3, $4, now(), $5)`,
        [uuid(), checkin, site, reason, staff],
      )
    }
    await migrate(database, { migrationsFolder: ALL })
    const kept = await client.query<{ conditions: object }>('select conditions from checkin')
    expect(kept.rows[0]?.conditions).toEqual({ training: 'after', food: 'just-before', skin: 'dry' })
    const skips = await client.query('select site, reason, words from skip order by site')
    expect(skips.rows).toEqual([
      { site: 'chest', reason: 'no-time', words: '' },
      { site: 'thigh', reason: 'covered', words: '' },
      { site: 'triceps', reason: 'other', words: 'A graze.' },
    ])
    await client.close()
  })

  it('gives old values the site they were truly taken at, or “level not said”', async () => {
    const data = mkdtempSync(join(tmpdir(), 'oak-pinch-earlier-'))
    made.push(data)
    layTemplate('empty', data)
    const client = new PGlite(join(data, 'postgres'))
    await client.exec('drop schema public cascade; drop schema drizzle cascade; create schema public')
    const database = drizzle(client)
    await migrate(database, { migrationsFolder: upTo(22) })
    const [studio, staff] = [uuid(), uuid()]
    await client.query(`insert into studio (id, name) values ($1, 'Reedwater')`, [studio])
    await client.query(
      `insert into staff (id, studio_id, name, email, password_hash, role) values ($1, $2, 'Runa', 'r@reed.example', 'x', 'lead')`,
      [staff, studio],
    )
    const person = async (name: string, thigh: string | null) => {
      const id = uuid()
      await client.query(
        `insert into client (id, studio_id, name, sex, birth_date, usual_side) values ($1, $2, $3, 'female', '1990-01-01', 'right')`,
        [id, studio, name],
      )
      if (thigh)
        await client.query(`insert into landmark_note (client_id, site, note) values ($1, 'thigh-girth', $2)`, [
          id,
          thigh,
        ])
      return id
    }
    const visit = async (owner: string, protocol: string, sites: readonly string[]) => {
      const id = uuid()
      await client.query(
        `insert into checkin (id, client_id, protocol_id, side, started_by, started_at, finished_at, day)
         values ($1, $2, $3, 'right', $4, now(), now(), current_date)`,
        [id, owner, protocol, staff],
      )
      for (const site of sites)
        await client.query(
          `insert into reading (id, checkin_id, site, round, value, unit, taken_at, taken_by, source)
           values ($1, $2, $3, 1, 40, $4, now(), $5, 'keyboard')`,
          [uuid(), id, site, site.includes('girth') ? 'cm' : 'mm', staff],
        )
      return id
    }
    const [bare, mid, upper] = [
      await person('Aila', null),
      await person('Bram', 'mid-thigh, by the scar'),
      await person('Cato', 'under the buttock'),
    ]
    const kin = await visit(bare, 'kinanthropometry-8-girths', ['triceps', 'biceps', 'subscapular', 'thigh-girth'])
    const laboratory = await visit(mid, 'laboratory-7-tape', ['triceps', 'thigh-girth'])
    const contest = await visit(upper, 'contest-prep-9', ['triceps', 'biceps'])
    const tape = await visit(upper, 'full-tape', ['thigh-girth'])
    await client.query(
      `insert into studio_set (id, set_id, studio_id, version, name, sites, policy, girth_policy, made_by)
       values ($1, $2, $3, 1, 'Arms', '["triceps","biceps"]', 'laboratory', 'tape', $4)`,
      [uuid(), uuid(), studio, staff],
    )
    await migrate(database, { migrationsFolder: ALL })
    const sitesOf = async (id: string) =>
      (
        await client.query<{ site: string }>('select site from reading where checkin_id = $1 order by site', [id])
      ).rows.map(({ site }) => site)
    const isSplit = async () => {
      expect(await sitesOf(kin)).toEqual(['biceps-kin', 'subscapular', 'thigh-unsaid', 'triceps-kin'])
      expect(await sitesOf(laboratory)).toEqual(['mid-thigh-girth', 'triceps'])
      expect(await sitesOf(contest)).toEqual(['biceps-kin', 'triceps'])
      expect(await sitesOf(tape)).toEqual(['thigh-girth'])
      const sets = await client.query<{ sites: string[] }>('select sites from studio_set')
      expect(sets.rows[0]?.sites).toEqual(['triceps', 'biceps-kin'])
    }
    await isSplit()
    // An archive of that version brings the same facts: whole, and merged into a studio in use.
    const asBefore = () =>
      client.exec(`update reading set site = case when site like '%-kin' then replace(site, '-kin', '')
          when site in ('thigh-unsaid', 'mid-thigh-girth') then 'thigh-girth' else site end;
        delete from landmark_note where site <> 'mid-thigh-girth' and note like 'mid-thigh%';
        update landmark_note set site = 'thigh-girth' where site = 'mid-thigh-girth';
        update studio_set set sites = '["triceps","biceps"]'`)
    await asBefore()
    expect(await sitesOf(kin)).toEqual(['biceps', 'subscapular', 'thigh-girth', 'triceps'])
    const split = (importId: string | null) =>
      database.transaction((tx) => splitOldSites(tx as unknown as Transaction, importId))
    await split(null)
    await isSplit()
    await asBefore()
    const merged = uuid()
    await client.query(
      `insert into data_import (id, studio_id, kind, file_name, brought_by, clients, checkins, readings, weigh_ins)
       values ($1, $2, 'archive', 'a.zip', $3, 0, 1, 4, 0)`,
      [merged, studio, staff],
    )
    await client.query(`insert into imported_item (import_id, kind, item_id) values ($1, 'checkin', $2)`, [merged, kin])
    await split(merged)
    expect(await sitesOf(kin)).toEqual(['biceps-kin', 'subscapular', 'thigh-unsaid', 'triceps-kin'])
    // What was here already stays as it is.
    expect(await sitesOf(contest)).toEqual(['biceps', 'triceps'])
    await client.close()
  })
})
