import { statSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { MeasuringFacts } from '../../shared/schemas/checkin'
import { Caller, LEAD, someReading, startedCheckin, type Server } from '../support/api'

let server: Server
beforeAll(async () => {
  server = await startServer()
})
afterAll(() => server.remove())

describe('nothing acknowledged is ever lost', () => {
  it('holds every acknowledged reading after kill -9 and restart, again and again', async () => {
    const coach = new Caller(server)
    await coach.setUp()
    const { checkinId } = await startedCheckin(coach)
    const acknowledged: string[] = []
    for (let life = 0; life < 3; life += 1) {
      for (let i = 0; i < 4; i += 1) {
        const reading = someReading({ site: 'chest', value: 8 + i })
        const { status } = await coach.send('POST', `/api/checkins/${checkinId}/events`, {
          readings: [reading],
          strikes: [],
        })
        expect(status).toBe(200)
        acknowledged.push(reading.id)
      }
      await server.kill()
      await server.start()
      const { body } = await coach.send<MeasuringFacts>('GET', `/api/checkins/${checkinId}`)
      expect(body.checkin.readings.map(({ id }) => id).sort()).toEqual([...acknowledged].sort())
    }
  })

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
