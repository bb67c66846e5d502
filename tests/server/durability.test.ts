import { statSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { seededRandom } from '../../core/simulate'
import type { MeasuringFacts } from '../../shared/schemas/checkin'
import { Caller, LEAD, someReading, startedCheckin, type Server } from '../support/api'

let server: Server
beforeAll(async () => {
  server = await startServer()
})
afterAll(() => server.remove())

describe('nothing acknowledged is ever lost', () => {
  // KILLS=200 npm run test:kills takes some ten minutes; a few do for every day.
  const kills = Number(process.env.KILLS ?? 5)

  it(
    `holds every acknowledged reading after ${kills} kills at random moments`,
    { timeout: 60_000 + kills * 10_000 },
    async () => {
      const coach = new Caller(server)
      await coach.setUp()
      const random = seededRandom(kills)
      const { checkinId } = await startedCheckin(coach)
      const acknowledged = new Set<string>()
      for (let life = 0; life < kills; life += 1) {
        const send = async (reading: { id: string }) => {
          const { status } = await coach.send('POST', `/api/checkins/${checkinId}/events`, {
            readings: [reading],
            strikes: [],
          })
          if (status === 200) acknowledged.add(reading.id)
        }
        const before = 1 + Math.floor(4 * random.next())
        for (let i = 0; i < before; i += 1) await send(someReading({ site: 'chest', value: 8 + i }))
        // One more is under way when the process dies: acknowledged or not, it must not harm the others.
        const underWay = send(someReading({ site: 'thigh', value: 20 })).catch(() => undefined)
        await new Promise((wake) => setTimeout(wake, 12 * random.next()))
        await server.kill()
        await underWay
        await server.start()
        const { body } = await coach.send<MeasuringFacts>('GET', `/api/checkins/${checkinId}`)
        const held = new Set(body.checkin.readings.map(({ id }) => id))
        expect([...acknowledged].filter((id) => !held.has(id))).toEqual([])
      }
      expect(acknowledged.size).toBeGreaterThanOrEqual(kills)
    },
  )

  it('takes a delivery twice as if it came once, and keeps struck readings', async () => {
    const coach = new Caller(server)
    await coach.signIn(LEAD)
    const { checkinId } = await startedCheckin(coach)
    const reading = someReading()
    const delivery = {
      readings: [reading, reading],
      strikes: [{ readingId: reading.id, struckAt: new Date().toISOString() }],
    }
    for (let i = 0; i < 3; i += 1) await coach.send('POST', `/api/checkins/${checkinId}/events`, delivery)
    const { checkin } = (await coach.send<MeasuringFacts>('GET', `/api/checkins/${checkinId}`)).body
    expect(checkin.readings).toHaveLength(1)
    expect(checkin.readings[0]).toMatchObject(reading)
    expect(checkin.strikes).toHaveLength(1)
  })

  it('keeps the session secret for the owner only', () => {
    expect(statSync(join(server.dataDir, 'session-secret')).mode & 0o777).toBe(0o600)
  })
})
