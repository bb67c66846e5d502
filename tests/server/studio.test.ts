import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addRepeats, NO_REPEATS, PRIOR_SHARE, siteErrorOf } from '../../core/error'
import type { Database, Store, Transaction } from '../../server/db/database'
import { checkin, client, reading } from '../../server/db/schema'
import { seedStudio } from '../../server/db/seed-studio'
import { findErrors } from '../../server/repositories/assessor-errors'
import { finishCheckin, listCheckins } from '../../server/repositories/checkins'
import { listClients } from '../../server/repositories/client-list'
import { clientLines } from '../../server/repositories/client-lines'
import { archiveClient, changeClient, findClient } from '../../server/repositories/clients'
import { storeEvents } from '../../server/repositories/events'
import { findHistory } from '../../server/repositories/history'
import { usePorts } from '../../server/ports'
import type { SignedIn } from '../../server/repositories/staff'
import { changeIn, type Change, type Unit } from '../../server/write/change'
import { testStore } from '../support/database'

const NOW = new Date()
const TODAY = NOW.toISOString().slice(0, 10)
const LIST = { q: '', archived: false, sort: 'name', descending: false, filter: 'all', from: 0 } as const

let store: Store
let db: Database
let who: SignedIn
beforeAll(async () => {
  store = await testStore()
  db = store.database
  const made = await seedStudio(store, { clients: 8, checkins: 4 }, { hash: async (word) => word, now: NOW, seed: 7 })
  who = { staffId: made.staffIds[0] ?? '', studioId: made.studioId, role: 'lead', sessionId: '' }
})
afterAll(() => store.close())

/** A change through the door, as a route makes it. */
function change<Result>(what: Change, work: (tx: Transaction, unit: Unit) => Promise<Result>): Promise<Result> {
  const store = { database: db, settle: async () => undefined }
  return changeIn({ store, ports: usePorts() }, { kind: 'staff', ...who }, what, work)
}

async function firstClient() {
  const [line] = await clientLines(db, who, false, '2026-11-24')
  if (!line) throw new Error('nobody here')
  const found = await findClient(db, who, line.id)
  if (!found) throw new Error('nobody here')
  return found
}

describe('a seeded studio', () => {
  it('holds whole, finished check-ins of several sets that core can read', async () => {
    const lines = await clientLines(db, who, false, '2026-11-24')
    expect(lines).toHaveLength(8)
    expect(lines.every(({ checkins, openCheckinId }) => checkins === 4 && openCheckinId === null)).toBe(true)
    expect(lines.every(({ sum }) => (sum?.value ?? 0) > 20)).toBe(true)
    const history = await findHistory(db, who, await firstClient())
    expect(history.checkins).toHaveLength(4)
    expect(history.checkins.every(({ strikes }) => strikes.length === 0)).toBe(true)
    expect(history.errors).toHaveLength(1)
  })

  it('is listed a page at a time, found and sorted', async () => {
    const byLean = await listClients(db, who, { ...LIST, sort: 'lean' }, TODAY)
    const values = byLean.clients.map(({ lean }) => lean?.value ?? NaN)
    expect(values).toEqual([...values].sort((a, b) => a - b))
    expect(byLean).toMatchObject({ total: 8, next: null })
    const rest = await listClients(db, who, { ...LIST, from: 6 }, TODAY)
    expect(rest.clients).toHaveLength(2)
    const name = byLean.clients[3]?.name ?? ''
    expect((await listClients(db, who, { ...LIST, q: name.toUpperCase() }, TODAY)).clients[0]?.name).toBe(name)
    const later = new Date(NOW.getTime() + 100 * 86_400_000).toISOString().slice(0, 10)
    expect((await listClients(db, who, { ...LIST, filter: 'due' }, later)).total).toBe(8)
    expect((await listClients(db, who, { ...LIST, filter: 'due' }, '2000-01-01')).total).toBe(0)
  })
})

describe('a line of the list', () => {
  it('follows a reading struck afterwards, a changed client, and a flag that withholds the percent', async () => {
    const person = await firstClient()
    const line = async () => (await clientLines(db, who, false, '2026-11-24')).find(({ id }) => id === person.id)
    const before = await line()
    const last = (await listCheckins(db, who, person.id)).at(-1)
    const fold = last?.readings.find(({ site }) => site === 'triceps')
    const strikes = [{ readingId: fold?.id ?? '', struckAt: NOW.toISOString() }]
    await change({ kind: 'checkin.facts', clientId: person.id }, (tx) =>
      storeEvents(tx, who, last?.id ?? '', { readings: [], strikes, skips: [], remarks: [] }),
    )
    expect((await line())?.sum?.value).not.toBe(before?.sum?.value)
    const { id: _, archived: __, ...input } = person
    await change({ kind: 'client.changed', clientId: person.id }, (tx) =>
      changeClient(tx, who, person.id, { ...input, name: 'Aila Renamed', flags: ['pregnant'] }),
    )
    expect(await line()).toMatchObject({ name: 'Aila Renamed', fat: null, lean: null })
    const archive = (archived: boolean) =>
      change({ kind: 'client.archived', clientId: person.id }, (tx) => archiveClient(tx, who, person.id, archived))
    await archive(true)
    expect(await line()).toBeUndefined()
    expect((await clientLines(db, who, true, '2026-11-24')).map(({ name }) => name)).toEqual(['Aila Renamed'])
    await archive(false)
  })
})

describe('an assessor’s error in the database', () => {
  const at = (daysAgo: number) => new Date(NOW.getTime() - daysAgo * 86_400_000).toISOString()

  /** A finished check-in of an assessor of its own, holding these girths. */
  async function visit(assessorId: string, daysAgo: number, girths: { value: number; unit: 'cm' | 'in' }[]) {
    const { id: clientId } = await firstClient()
    const id = uuid()
    await db.insert(checkin).values({
      id,
      clientId,
      protocolId: 'navy-tape',
      side: 'right',
      startedBy: who.staffId,
      assessorId,
      startedAt: at(daysAgo),
      day: at(daysAgo).slice(0, 10),
      finishedAt: at(daysAgo),
    })
    const rows = girths.map((girth, i) => ({
      ...girth,
      id: uuid(),
      checkinId: id,
      site: 'neck',
      round: i + 1,
      takenAt: at(daysAgo),
      takenBy: who.staffId,
      source: 'pad' as const,
    }))
    await db.insert(reading).values(rows)
    return { id, rows }
  }

  const neckOf = async (assessorId: string) => {
    usePorts().shelf.forget('errors', who.studioId)
    const found = await findErrors(db, who.studioId)
    return found.find((one) => one.assessorId === assessorId)?.sites.find(({ site }) => site === 'neck')
  }

  it('is core’s, with inches as centimetres, within the window, without what is struck', async () => {
    const other = who.staffId
    const { rows } = await visit(other, 10, [
      { value: 36, unit: 'cm' },
      { value: 36.6, unit: 'cm' },
      { value: 50, unit: 'cm' },
    ])
    await visit(other, 20, [
      { value: 14, unit: 'in' },
      { value: 14.25, unit: 'in' },
    ])
    await visit(other, 400, [
      { value: 30, unit: 'cm' },
      { value: 40, unit: 'cm' },
    ])
    const strikes = [{ readingId: rows[2]?.id ?? '', struckAt: NOW.toISOString() }]
    await change({ kind: 'checkin.facts' }, (tx) =>
      storeEvents(tx, who, rows[0]?.checkinId ?? '', { readings: [], strikes, skips: [], remarks: [] }),
    )
    const pooled = addRepeats(addRepeats(NO_REPEATS, [36, 36.6]), [14 * 2.54, 14.25 * 2.54])
    const expected = siteErrorOf('neck', pooled)
    const found = await neckOf(other)
    expect(found?.repeats).toBe(2)
    expect(found?.share).toBeCloseTo(expected.share, 12)
    // By hand: d^2 / 2 of both pairs, ten readings' worth of the prior of 1 %.
    const mean = (36 + 36.6 + 14 * 2.54 + 14.25 * 2.54) / 4
    const squares = 0.6 ** 2 / 2 + (0.25 * 2.54) ** 2 / 2
    const tem = Math.sqrt((10 * (PRIOR_SHARE.girth * mean) ** 2 + squares) / 12)
    expect(found?.share).toBeCloseTo(tem / mean, 9)
  })

  it('leaves unfinished check-ins out, and takes them in once they are finished', async () => {
    const { id } = await visit(who.staffId, 5, [
      { value: 36, unit: 'cm' },
      { value: 36.2, unit: 'cm' },
    ])
    await db.update(checkin).set({ finishedAt: null }).where(eq(checkin.id, id))
    expect((await neckOf(who.staffId))?.repeats).toBe(2)
    const before = await db.select({ at: client.touchedAt }).from(client)
    const { id: clientId } = await firstClient()
    await change({ kind: 'checkin.finished', clientId, checkinId: id }, (tx) =>
      finishCheckin(tx, id, NOW.toISOString()),
    )
    expect((await neckOf(who.staffId))?.repeats).toBe(3)
    const after = await db.select({ at: client.touchedAt }).from(client)
    expect(after.filter(({ at: moved }, i) => moved !== before[i]?.at).length).toBeGreaterThan(0)
  })
})
