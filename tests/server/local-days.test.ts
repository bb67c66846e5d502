import { format, parseISO } from 'date-fns'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import { addDays, localDay } from '../../core/calendar'
import type { MeasuringFacts } from '../../shared/schemas/checkin'
import { Caller, someClient, type Server } from '../support/api'
import { wordsOf } from '../support/pdf'
import { enterVisit } from '../support/visits'

// The two ends of the earth: whatever the hour of this test, at least one of them has another day than UTC.
const ZONES = ['Pacific/Kiritimati', 'Pacific/Pago_Pago', 'Asia/Kolkata']

describe.each(ZONES)('a studio in %s', (timeZone) => {
  let server: Server
  let coach: Caller
  const today = () => localDay(Date.now(), timeZone)
  beforeAll(async () => {
    server = await startServer({ env: { TZ: 'America/New_York' } })
    coach = new Caller(server)
    await coach.setUp({ timeZone })
  })
  afterAll(() => server.remove())

  it('takes its own today for consent, weigh-ins and caliper checks, and no day after it', async () => {
    const client = someClient({ consentOn: today() })
    expect((await coach.send('POST', '/api/clients', client)).status).toBe(201)
    const tomorrow = addDays(today(), 1)
    const early = await coach.send('POST', '/api/clients', someClient({ consentOn: tomorrow }))
    expect(early.status).toBe(422)
    expect(early.body.fields.map(({ field }) => field)).toContain('consentOn')
    const weighIn = (day: string) => ({
      weighIns: [{ id: uuid(), day, value: 71, unit: 'kg', dry: true, source: 'typed' }],
    })
    const diary = `/api/clients/${client.id}/weigh-ins`
    expect((await coach.send('POST', diary, weighIn(today()))).status).toBe(200)
    expect((await coach.send('POST', diary, weighIn(tomorrow))).status).toBe(422)
    const caliper = { id: uuid(), name: 'Steel', resolutionMm: 0.5 }
    await coach.send('POST', '/api/calipers', caliper)
    const check = (checkedOn: string) =>
      coach.send('POST', `/api/calipers/${caliper.id}/checks`, { id: uuid(), checkedOn, deviationMm: 0 })
    expect((await check(today())).status).toBe(201)
    expect((await check(tomorrow)).status).toBe(422)
  })

  it('keeps the day a check-in was, also when the studio moves', async () => {
    const client = someClient({ name: 'Day Keeper' })
    await coach.send('POST', '/api/clients', client)
    const startedAt = new Date().toISOString()
    const started = await coach.send<{ id: string }>('POST', `/api/clients/${client.id}/checkins`, {
      id: uuid(),
      protocolId: 'laboratory-7',
      startedAt,
    })
    const day = localDay(startedAt, timeZone)
    const dayOf = async () =>
      (await coach.send<MeasuringFacts>('GET', `/api/checkins/${started.body.id}`)).body.checkin.day
    expect(await dayOf()).toBe(day)
    const studio = { name: 'Moved', massUnit: 'kg', lengthUnit: 'cm' }
    await coach.send('PATCH', '/api/studio', { ...studio, timeZone: 'UTC' })
    expect(await dayOf()).toBe(day)
    await coach.send('PATCH', '/api/studio', { ...studio, timeZone })
  })

  it('lets somebody who turns eighteen there today be measured without a guardian, and nobody a day younger', async () => {
    const [year = '', month = '', date = ''] = today().split('-')
    const born = `${Number(year) - 18}-${month}-${date === '29' && month === '02' ? '28' : date}`
    const start = async (birthDate: string) => {
      const client = someClient({ name: 'Birthday', birthDate })
      await coach.send('POST', '/api/clients', client)
      const body = { id: uuid(), protocolId: 'laboratory-7', startedAt: new Date().toISOString() }
      return (await coach.send('POST', `/api/clients/${client.id}/checkins`, body)).status
    }
    expect(await start(born)).toBe(201)
    expect(await start(addDays(born, 1))).toBe(409)
  })

  it('prints its own days on the page to take home, wherever the server stands', async () => {
    const client = someClient({ name: 'Printed Days' })
    await coach.send('POST', '/api/clients', client)
    const values = [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24]
    for (const daysAgo of [28, 0.01]) await enterVisit(coach, client.id, { daysAgo, values, kg: 60 })
    const { bytes, headers } = await coach.bytes(`/api/clients/${client.id}/take-home`)
    const said = (day: string) => format(parseISO(day), 'd MMMM yyyy')
    const first = localDay(Date.now() - 28 * 86_400_000, timeZone)
    const last = localDay(Date.now() - 0.01 * 86_400_000, timeZone)
    expect((await wordsOf(bytes)).join(' ')).toContain(`${said(first)} to ${said(last)}`)
    expect(headers.get('content-disposition')).toContain(`-${last}.pdf`)
  })
})
