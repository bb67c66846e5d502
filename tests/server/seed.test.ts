import { beforeAll, describe, expect, it } from 'vitest'
import type { Store } from '../../server/db/database'
import { seedDemo } from '../../server/db/seed-demo'
import { listCheckins } from '../../server/repositories/checkins'
import { findFloor } from '../../server/repositories/floor'
import { clientLines } from '../../server/repositories/client-lines'
import { findCredentials } from '../../server/repositories/staff'
import { sessionState } from '../../core/readings'
import { PROTOCOLS } from '../../core/protocols'
import { SEEDED_AT, seededStore, testStore } from '../support/database'

async function found({ database: db }: Store) {
  const coach = await findCredentials(db, 'runa@reedwater.example')
  if (!coach) throw new Error('no demo coach')
  const { staffId, studioId } = coach
  return { db, who: { staffId, studioId, role: 'lead', sessionId: '' } as const }
}

describe('the demo data', () => {
  let seeded: Awaited<ReturnType<typeof found>>
  beforeAll(async () => {
    seeded = await found(await seededStore())
  })

  it('holds a club’s worth of people and visits, one of them unfinished today', async () => {
    const { db, who } = seeded
    const clients = await clientLines(db, who, false, '2026-11-24')
    expect(clients.length).toBe(10)
    const floor = await findFloor(db, who, '2026-11-24', 'UTC')
    expect(floor.open).toHaveLength(1)
    expect(floor.open[0]?.day).toBe('2026-11-24')
    expect(floor.due.length).toBeGreaterThan(1)
    const maren = clients.find(({ name }) => name === 'Maren Osk')
    const checkins = await listCheckins(db, who, maren?.id ?? '')
    expect(checkins).toHaveLength(18)
    for (const { readings, strikes } of checkins) {
      expect(readings.filter(({ unit }) => unit === 'mm').every(({ value }) => Number.isInteger(value * 2))).toBe(true)
      const protocol = PROTOCOLS['laboratory-7']
      expect(sessionState(protocol, readings, strikes).complete).toBe(true)
    }
  })

  it('is seeded once, and the same each time', async () => {
    const { db, who } = seeded
    await seedDemo(db, async () => 'again', SEEDED_AT)
    const clients = await clientLines(db, who, false, '2026-11-24')
    expect(clients).toHaveLength(10)
    const store = await testStore()
    await seedDemo(store.database, async (password) => password, SEEDED_AT)
    const other = await found(store)
    const again = await clientLines(other.db, other.who, false, '2026-11-24')
    expect(again).toEqual(clients)
  })
})
