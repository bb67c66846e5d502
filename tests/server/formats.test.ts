import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { eq, sql } from 'drizzle-orm'
import { Fhir } from 'fhir'
import { readSheet } from 'read-excel-file/node'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import Papa from 'papaparse'
import { localDay } from '../../core/calendar'
import { composeCheckin } from '../../core/composition'
import { changeRow, numberShown } from '../../core/following'
import { incomingBundle } from '../../exchange/fhir/bundle-in'
import { checkinFacts } from '../../shared/checkin-facts'
import { followRecord, spanOfRecord } from '../../shared/followed-record'
import type { LookedAt } from '../../shared/schemas/data'
import type { Store } from '../../server/db/database'
import { booking, checkin, client, staff, studio } from '../../server/db/schema'
import { seedDemoBench } from '../../server/db/demo-bench'
import { seedDemoPhotos } from '../../server/db/demo-photos'
import { seedDemoWeek } from '../../server/db/demo-week'
import { readHere } from '../../server/exchange/file-reader'
import { bringFile } from '../../server/exchange/bring-file'
import { EXPORTS, writeExport, type ExportFormat } from '../../server/exchange/exports'
import { takeBack } from '../../server/exchange/take-back'
import { archivedTables } from '../../server/exchange/tables'
import { UNWATCHED } from '../../server/exchange/progress'
import { memoryBus } from '../../server/ports/bus'
import { memoryShelf } from '../../server/ports/shelf'
import { folderPhotos } from '../../server/ports/photo-store'
import { everyCaliper } from '../../server/repositories/calipers'
import { findClient } from '../../server/repositories/clients'
import { findHistory } from '../../server/repositories/history'
import { takeHomeFacts } from '../../server/take-home/facts'
import { listCheckins } from '../../server/repositories/checkins'
import { listWeighIns } from '../../server/repositories/weigh-ins'
import type { SignedIn } from '../../server/repositories/staff'
import { changeIn } from '../../server/write/change'
import { readCalendar } from '../support/calendar'
import { seededStore, testStore } from '../support/database'

const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-formats-'))
const photos = folderPhotos(join(folder, 'photos'))
let full: Store
let runa: SignedIn

async function leadOf(store: Store): Promise<SignedIn> {
  const [lead] = await store.database.select().from(staff).where(eq(staff.role, 'lead'))
  if (!lead) throw new Error('no lead')
  return { staffId: lead.id, studioId: lead.studioId, role: 'lead', sessionId: '' }
}

const made = new Map<ExportFormat, string>()
beforeAll(async () => {
  full = await seededStore()
  const keep = (id: string, bytes: Buffer) => photos.put(id, bytes)
  await seedDemoPhotos(full.database, keep)
  await seedDemoWeek(full.database, keep)
  await seedDemoBench(full.database)
  // Far from where days are counted from: an evening's check-in is of another day in UTC.
  await full.database.update(studio).set({ timeZone: 'Pacific/Auckland' })
  for (const { id, startedAt } of await full.database
    .select({ id: checkin.id, startedAt: checkin.startedAt })
    .from(checkin))
    await full.database
      .update(checkin)
      .set({ day: localDay(startedAt, 'Pacific/Auckland') })
      .where(eq(checkin.id, id))
  runa = await leadOf(full)
  for (const format of Object.keys(EXPORTS) as ExportFormat[]) {
    const path = join(folder, `all.${EXPORTS[format]}`)
    await writeExport(format, path, { store: full, photos, who: runa, clientId: null }, UNWATCHED)
    made.set(format, path)
  }
}, 60_000)
afterAll(async () => {
  await full.close()
  await other?.close()
  rmSync(folder, { recursive: true })
})
const fileOf = (format: ExportFormat) => made.get(format) ?? ''

let other: Store | null = null

/** Another studio with a lead coach of the same name, empty but for them. */
async function another(): Promise<{ store: Store; who: SignedIn }> {
  const store = (other ??= await testStore())
  // The record is only added to: a test that begins anew says so.
  const kept = ['audit', 'audit_chain'].map((name) => sql.raw(`alter table ${name}`))
  for (const one of kept) await store.database.execute(sql`${one} disable trigger user`)
  for (const { table } of [...archivedTables()].reverse()) await store.database.delete(table)
  for (const one of kept) await store.database.execute(sql`${one} enable trigger user`)
  const studioId = uuid()
  await store.database.insert(studio).values({ id: studioId, name: 'Boathouse North' })
  await store.database.insert(staff).values(
    ['Runa Bexley', 'Ivo Tarn'].map((name, i) => ({
      id: uuid(),
      studioId,
      name,
      email: `${i}@north.example`,
      passwordHash: '',
      role: i === 0 ? ('lead' as const) : ('coach' as const),
    })),
  )
  return { store, who: await leadOf(store) }
}

function bring(store: Store, who: SignedIn, path: string, id = uuid()) {
  const ports = { bus: memoryBus(), shelf: memoryShelf() }
  const through = {
    db: store.database,
    photos,
    reader: readHere,
    change: (<Result>(what: Parameters<typeof changeIn>[2], work: Parameters<typeof changeIn<Result>>[3]) =>
      changeIn({ store, ports }, { kind: 'staff', ...who }, what, work)) as never,
  }
  return bringFile(through, who, { path, name: 'file', id, plan: null }, UNWATCHED) as Promise<LookedAt>
}

/** Everything the product says of every client's check-ins, by name and instant: what has to come back. */
async function everything(store: Store, who: SignedIn): Promise<Map<string, unknown>> {
  const said = new Map<string, unknown>()
  const names = await store.database.select({ id: client.id, name: client.name }).from(client)
  const people = await store.database.select({ id: staff.id, name: staff.name }).from(staff)
  const calipers = await everyCaliper(store.database, who)
  for (const { id, name } of names) {
    const found = await findClient(store.database, who, id)
    if (!found) continue
    for (const record of (await listCheckins(store.database, who, id)).filter(
      ({ finishedAt }) => finishedAt !== null,
    )) {
      const struck = new Set(record.strikes.map(({ readingId }) => readingId))
      // Calipers and flags stay behind in these formats: what is held against each other is what was measured.
      const facts = checkinFacts(
        { ...record, caliperId: null, conditions: {} },
        { ...found, flags: [], ancestry: null, athlete: null },
        calipers,
      )
      const { values, sumMm, weightKg, ageYears, estimate } = composeCheckin(facts)
      said.set(`${name} ${record.startedAt}`, {
        day: record.day,
        set: record.protocolId,
        assessor: people.find((one) => one.id === record.assessorId)?.name ?? null,
        readings: record.readings.map(({ id: reading, site, round, value, unit, method }) => ({
          site,
          round,
          value,
          unit,
          method,
          struck: struck.has(reading),
          note: record.remarks.find(({ readingId }) => readingId === reading)?.words ?? '',
        })),
        values,
        sumMm,
        weightKg,
        ageYears,
        percent: estimate && 'percent' in estimate ? estimate.percent : null,
      })
    }
  }
  return said
}

describe('check-ins that leave and come back', () => {
  it.each(['readings', 'fhir'] as const)('as %s are the same', async (format) => {
    const { store, who } = await another()
    const looked = await bring(store, who, fileOf(format))
    const [before, after] = [await everything(full, runa), await everything(store, who)]
    expect(looked.checkins).toBe(before.size)
    expect(before.size).toBeGreaterThan(60)
    // Within one instant readings have no order of their own in a bundle: it has them by site.
    const sorted = (all: Map<string, unknown>) =>
      Object.fromEntries(
        [...all].sort().map(([key, one]) => {
          const { readings, ...rest } = one as { readings: object[] }
          return [key, { ...rest, readings: readings.map((reading) => JSON.stringify(reading)).sort() }]
        }),
      )
    expect(sorted(after)).toEqual(sorted(before))
    // Once more changes nothing: everything is here already.
    const again = await bring(store, who, fileOf(format)).catch((error: Error) => error)
    expect(again).toMatchObject({ checkins: 0, here: looked.here + looked.checkins + looked.weighIns })
    expect((await everything(store, who)).size).toBe(before.size)
  })

  it('as a bundle bring the weights of the diary along', async () => {
    const { store, who } = await another()
    await bring(store, who, fileOf('fhir'))
    for (const { id, name } of await full.database.select({ id: client.id, name: client.name }).from(client)) {
      const [there] = await store.database.select({ id: client.id }).from(client).where(eq(client.name, name))
      const days = async (at: Store, of: string) =>
        (await listWeighIns(at.database, of)).map(({ day, value, unit }) => `${day} ${value} ${unit}`).sort()
      const own = await days(full, id)
      if (own.length > 0) expect(await days(store, there?.id ?? '')).toEqual(own)
    }
  })
})

describe('a FHIR bundle', () => {
  it('passes a general validator, resource by resource and as a whole', () => {
    const bundle = JSON.parse(readFileSync(fileOf('fhir'), 'utf8')) as {
      entry: { resource: { resourceType: string } }[]
    }
    const fhir = new Fhir()
    const seen = new Map<string, number>()
    for (const { resource } of bundle.entry) {
      const { valid, messages } = fhir.validate(resource, { errorOnUnexpected: true })
      expect(messages.filter(({ severity }) => severity === 'error' || severity === 'fatal')).toEqual([])
      expect(valid).toBe(true)
      seen.set(resource.resourceType, (seen.get(resource.resourceType) ?? 0) + 1)
    }
    expect(seen.get('Patient')).toBe(15)
    expect(seen.get('Observation')).toBeGreaterThan(500)
    const whole = fhir.validate({ ...bundle, entry: bundle.entry.slice(0, 40) }, { errorOnUnexpected: true })
    expect(whole.messages.filter(({ severity }) => severity === 'error')).toEqual([])
  })

  it('codes what LOINC has a certain code of by it, with UCUM’s units', () => {
    const text = readFileSync(fileOf('fhir'), 'utf8')
    // LOINC 29463-7 body weight, 8302-2 body height, 39156-5 BMI, 41982-0 percentage of body fat, 8280-0 waist at umbilicus.
    for (const code of ['29463-7', '39156-5', '41982-0', '8280-0']) expect(text).toContain(`"code":"${code}"`)
    expect(text).toContain('"code":"mm"')
    expect(text).not.toContain('undefined')
  })

  it('is read only where a day says which: what a browser alone would take for one is refused with a sentence', async () => {
    const bundle = (effectiveDateTime: string) => ({
      resourceType: 'Bundle',
      type: 'collection',
      entry: [
        { fullUrl: 'urn:uuid:1', resource: { resourceType: 'Patient', name: [{ text: 'Hanne Alder' }] } },
        {
          fullUrl: 'urn:uuid:2',
          resource: {
            resourceType: 'Observation',
            status: 'final',
            code: { coding: [{ system: 'http://loinc.org', code: '29463-7' }] },
            subject: { reference: 'urn:uuid:1' },
            effectiveDateTime,
            valueQuantity: { value: 72, code: 'kg' },
          },
        },
      ],
    })
    const read = async (time: string) => {
      const path = join(folder, 'day.json')
      writeFileSync(path, JSON.stringify(bundle(time)))
      const said: string[] = []
      const days: string[] = []
      for await (const { day } of incomingBundle(path, ({ message }) => said.push(message))) days.push(day)
      return said.length > 0 ? said : days
    }
    expect(await read('2026-03-04')).toEqual(['2026-03-04'])
    expect(await read('2026-03-04T07:10:00+01:00')).toEqual(['2026-03-04'])
    for (const time of ['202,,,,,,,', '2026-02-30', '2026', '4 March 2026', '2026-03-04T07:10:00', '-2026-03-04'])
      expect(await read(time)).toEqual(['This observation has no day or time that can be read (effectiveDateTime).'])
  })
})

describe('a calendar', () => {
  it('is read by another library: every visit booked, with a name and nothing about bodies', async () => {
    const text = readFileSync(fileOf('calendar'), 'utf8')
    // How many the demo's week holds depends on the day of the week it is made on.
    const booked = await full.database.select({ id: booking.id }).from(booking)
    expect(booked).not.toEqual([])
    const read = readCalendar(text).map(({ uid }) => uid.split('@')[0])
    expect(read.toSorted()).toEqual(booked.map(({ id }) => id).toSorted())
    expect(text).not.toMatch(/fold|fat|weight|body/i)
  })
})

describe('a workbook', () => {
  it('opens in another library with real numbers and dates and units in its headings', async () => {
    const results = await readSheet(fileOf('workbook'), 'Results')
    const [heading, ...rows] = results
    expect(heading?.slice(0, 5)).toEqual([
      'Client',
      'Day',
      'Equation',
      'Sum of folds (mm)',
      'Error of sum of folds (mm, one standard error of measuring)',
    ])
    const maren = rows.filter(([name]) => name === 'Maren Osk')
    expect(maren).toHaveLength(18)
    for (const [, day, equation, sum, error, percent] of maren) {
      expect(day).toBeInstanceOf(Date)
      expect(typeof equation).toBe('string')
      for (const figure of [sum, error, percent]) expect(typeof figure).toBe('number')
    }
    const readings = await readSheet(fileOf('workbook'), 'Readings')
    const csv = Papa.parse<string[]>(readFileSync(fileOf('readings'), 'utf8').trim()).data
    expect(readings.length).toBe(csv.length)
  })

  it('says every change as the screens and the page to take home do, digit for digit', async () => {
    const [, ...rows] = await readSheet(fileOf('workbook'), 'Changes')
    const units = { mass: 'kg', length: 'cm' } as const
    let compared = 0
    for (const name of ['Maren Osk', 'Petra Lindqvane', 'Oskar Brandeth']) {
      const [person] = await full.database.select().from(client).where(eq(client.name, name))
      const found = person && (await findClient(full.database, runa, person.id))
      if (!found) throw new Error(`no ${name}`)
      const history = await findHistory(full.database, runa, found)
      const span = spanOfRecord(followRecord(history)).span
      const page = takeHomeFacts({
        history,
        studio: 'Reedwater Rowing Club',
        units,
        fromId: null,
        toId: null,
        neutral: false,
        today: '2026-12-01',
        energyOffered: false,
      })
      const own = rows.filter(([client]) => client === name)
      const printed = [...(page?.figures ?? []), ...(page?.folds ?? []), ...(page?.girths ?? [])]
      for (const change of [...(span?.folds ?? []), ...(span?.girths ?? [])]
        .map((one) => one.change)
        .concat(span?.fat ?? [], span?.lean ?? [], span?.weight ?? [])) {
        const row = changeRow(change, units)
        const said = [row.then, row.now, row.difference].map(numberShown)
        expect(numberShown(row.difference)).toBeCloseTo(numberShown(row.now) - numberShown(row.then), 9)
        const inFile = own.filter(
          ([, , , , then, now, difference]) => then === said[0] && now === said[1] && difference === said[2],
        )
        expect([name, change.figure, inFile.map((cells) => cells[8])]).toEqual([
          name,
          change.figure,
          expect.arrayContaining([row.sign]),
        ])
        const onPaper = printed.find((one) => one.then === row.then && one.now === row.now && one.sign === row.sign)
        expect([change.figure, onPaper?.difference]).toEqual([change.figure, `${row.difference} ${row.differenceUnit}`])
        compared += 1
      }
    }
    expect(compared).toBeGreaterThan(20)
  })

  it('has its first row frozen and holds no formula', async () => {
    const { unzipSync, strFromU8 } = await import('fflate')
    const parts = unzipSync(readFileSync(fileOf('workbook')))
    const sheets = Object.keys(parts).filter((name) => name.startsWith('xl/worksheets/sheet'))
    expect(sheets).toHaveLength(7)
    for (const name of sheets) {
      const xml = strFromU8(parts[name] ?? new Uint8Array())
      expect(xml).toContain('state="frozen"')
      expect(xml).not.toContain('<f>')
    }
  })
})

describe('text a spreadsheet would take for a formula', () => {
  it('leaves with a quote before it, is never worked out, and comes back as it was', async () => {
    const { store, who } = await another()
    const id = uuid()
    const name = '=HYPERLINK("http://evil.example","Maren")'
    const row = { id, studioId: who.studioId, name, sex: 'female' as const, birthDate: '1990-01-01' }
    await store.database.insert(client).values(row)
    const path = join(folder, 'formula.csv')
    const text = `client,sex,birth_date,height_cm,at,set,assessor,site,value,unit,round,struck,method,note\n${Papa.unparse([[`'${name}`, 'female', '1990-01-01', '', '2026-03-04T10:00:00Z', 'youth-2', '', 'triceps', '12', 'mm', '1', '', '', "'+1"]])}\n`
    const { writeFileSync } = await import('node:fs')
    writeFileSync(path, text)
    await bring(store, who, path)
    await writeExport('readings', path, { store, photos, who, clientId: null }, UNWATCHED)
    const [, cells] = Papa.parse<string[]>(readFileSync(path, 'utf8').trim()).data
    expect([cells?.[0], cells?.[13]]).toEqual([`'${name}`, "'+1"])
  })
})

describe('text that holds what is no character', () => {
  it('is said at its line, in whatever format it comes', async () => {
    const { store, who } = await another()
    const path = join(folder, 'broken.csv')
    const header = 'client,sex,birth_date,height_cm,at,set,assessor,site,value,unit,round,struck,method,note'
    const { writeFileSync } = await import('node:fs')
    writeFileSync(
      path,
      `${header}\n${`${'x'.repeat(1_900)}\n`.repeat(3)}Fen\u0000 Rower,female,1990-01-01,,2026-03-04T10:00:00Z,youth-2,,triceps,12,mm,1,,,\n`,
    )
    await expect(bring(store, who, path)).rejects.toThrow('nothing was stored')
    expect(await store.database.select().from(client)).toEqual([])
  })
})

describe('an import', () => {
  it('is taken back whole, and leaves what was there before untouched', async () => {
    const { store, who } = await another()
    const path = join(folder, 'one.csv')
    await writeExport('readings', path, { store: full, photos, who: runa, clientId: null }, UNWATCHED)
    const id = uuid()
    await bring(store, who, path, id)
    await store.database.transaction((tx) => takeBack(tx, who, id))
    expect(await store.database.select().from(client)).toEqual([])
    await expect(store.database.transaction((tx) => takeBack(tx, who, id))).rejects.toThrow('taken back already')
  })
})
