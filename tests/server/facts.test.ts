import { request } from 'node:http'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { CheckinRecord, MeasuringFacts } from '../../shared/schemas/checkin'
import type { Client } from '../../shared/schemas/client'
import type { ClientHistory, WeighInRecord } from '../../shared/schemas/following'
import { Caller, LEAD, type Server, someClient, someReading, startedCheckin } from '../support/api'
import { enterVisit } from '../support/visits'

let server: Server
let coach: Caller
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  coach = new Caller(server)
  await coach.signIn(LEAD)
})
afterAll(() => server.remove())

const now = () => new Date().toISOString()
const today = () => now().slice(0, 10)
const FOLDS = [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24]

async function recordOf(checkinId: string): Promise<CheckinRecord> {
  return (await coach.send<MeasuringFacts>('GET', `/api/checkins/${checkinId}`)).body.checkin
}

async function clientOf(id: string): Promise<Client> {
  return (await coach.send<Client>('GET', `/api/clients/${id}`)).body
}

describe('a client’s caution flags', () => {
  it('are stored with the client or not at all, and sent again they are there', async () => {
    const client = someClient({ flags: ['eating-disorder', 'pregnant'] })
    for (let i = 0; i < 2; i += 1) expect((await coach.send('POST', '/api/clients', client)).status).toBe(201)
    expect((await clientOf(client.id)).flags.sort()).toEqual(['eating-disorder', 'pregnant'])
  })

  it('are not erased by a form opened before they were noted: it is answered with what stands there', async () => {
    const client = someClient({ name: 'Liv Ambersen' })
    await coach.send('POST', '/api/clients', client)
    const { id, ...form } = client
    const noted = { ...form, version: 1, flags: ['eating-disorder'] }
    expect((await coach.send('PATCH', `/api/clients/${id}`, noted)).status).toBe(200)
    const stale = await coach.send('PATCH', `/api/clients/${id}`, { ...form, version: 1, notes: 'Likes mornings.' })
    expect(stale.status).toBe(409)
    expect(stale.body.stored).toMatchObject({ flags: ['eating-disorder'], version: 2, notes: '' })
    expect(await clientOf(id)).toMatchObject({ flags: ['eating-disorder'], version: 2 })
    const again = { ...form, flags: ['eating-disorder'], notes: 'Likes mornings.', version: 2 }
    expect((await coach.send('PATCH', `/api/clients/${id}`, again)).status).toBe(200)
    // Its answer was lost and it is sent once more: it is stored, and that is no conflict.
    expect((await coach.send('PATCH', `/api/clients/${id}`, again)).status).toBe(200)
  })
})

describe('a finish that was answered', () => {
  it('is not undone by a note that set out before it and arrives after', async () => {
    const { checkinId } = await startedCheckin(coach, someClient({ name: 'Tobin Hale' }))
    await coach.send('POST', `/api/checkins/${checkinId}/events`, { readings: [someReading()], strikes: [] })
    const body = JSON.stringify({ note: 'strap moved' })
    const slow = await slowly(`/api/checkins/${checkinId}`, body, async () => {
      expect((await coach.send('PATCH', `/api/checkins/${checkinId}`, { finished: true })).status).toBe(200)
      expect((await coach.send('PATCH', `/api/checkins/${checkinId}`, { keptWords: 'Steady.' })).status).toBe(200)
    })
    expect(slow).toBe(200)
    const record = await recordOf(checkinId)
    expect(record.finishedAt).not.toBeNull()
    expect(record).toMatchObject({ note: 'strap moved', keptWords: 'Steady.' })
  })

  it('stays while another session of the client is open', async () => {
    const client = someClient({ name: 'Edrik Vane' })
    const { checkinId } = await startedCheckin(coach, client)
    await coach.send('POST', `/api/checkins/${checkinId}/events`, { readings: [someReading()], strikes: [] })
    const status = await slowly(`/api/checkins/${checkinId}`, JSON.stringify({ note: 'late' }), async () => {
      await coach.send('PATCH', `/api/checkins/${checkinId}`, { finished: true })
      await startedCheckin(coach, client)
    })
    expect(status).toBe(200)
    expect((await recordOf(checkinId)).finishedAt).not.toBeNull()
  })

  /** A PATCH whose body arrives only after `meanwhile`. */
  function slowly(path: string, body: string, meanwhile: () => Promise<void>): Promise<number> {
    return new Promise((resolve, reject) => {
      const headers = { ...coach.sentHeaders(), 'content-type': 'application/json', 'content-length': body.length }
      const sent = request(`${server.address}${path}`, { method: 'PATCH', headers }, (answer) => {
        answer.resume()
        resolve(answer.statusCode ?? 0)
      })
      sent.on('error', reject)
      sent.write(body.slice(0, 5))
      setTimeout(() => meanwhile().then(() => sent.end(body.slice(5)), reject), 150)
    })
  }
})

describe('an id that is taken', () => {
  /** Each kind of fact: where it goes, as first sent, and as another under the same id. */
  async function kinds() {
    const client = someClient({ name: 'Sanna Quill' })
    const { checkinId, clientId } = await startedCheckin(coach, client)
    const reading = someReading()
    await coach.send('POST', `/api/checkins/${checkinId}/events`, { readings: [reading], strikes: [] })
    const other = someClient({ name: 'Tam Osier' })
    await coach.send('POST', '/api/clients', other)
    const visit = await enterVisit(coach, other.id, { daysAgo: 7, values: FOLDS, kg: 60 })
    const caliper = { id: uuid(), name: 'Steel, bench', resolutionMm: 0.5 }
    await coach.send('POST', '/api/calipers', caliper)
    const events = `/api/checkins/${checkinId}/events`
    const none = { readings: [], strikes: [], skips: [], remarks: [] }
    const skip = { id: uuid(), site: 'chest', reason: 'A graze.', at: now() }
    const remark = { id: uuid(), readingId: reading.id, words: 'Skin moist.', at: now() }
    const diary = { id: uuid(), day: today(), value: 71.4, unit: 'kg', dry: true, source: 'typed' }
    const choice = { id: uuid(), conversion: 'siri', equationId: null }
    const plan = { id: uuid(), checkinId: visit, kind: 'sum', value: 90, perWeek: 1, unit: 'mm', byDay: null }
    const check = { id: uuid(), checkedOn: today(), deviationMm: 0.1 }
    return [
      ['reading', events, { ...none, readings: [reading] }, { ...none, readings: [{ ...reading, value: 33 }] }],
      ['skip', events, { ...none, skips: [skip] }, { ...none, skips: [{ ...skip, reason: 'No time.' }] }],
      ['note', events, { ...none, remarks: [remark] }, { ...none, remarks: [{ ...remark, words: 'Dry.' }] }],
      ['client', '/api/clients', client, { ...client, name: 'Somebody Else' }],
      ['client’s flags', '/api/clients', client, { ...client, flags: ['pregnant'] }],
      [
        'weigh-in',
        `/api/clients/${clientId}/weigh-ins`,
        { weighIns: [diary] },
        { weighIns: [{ ...diary, value: 80 }] },
      ],
      ['choice', `/api/clients/${clientId}/choices`, choice, { ...choice, conversion: 'brozek' }],
      ['plan', `/api/clients/${other.id}/plans`, plan, { ...plan, value: 91 }],
      ['caliper', '/api/calipers', caliper, { ...caliper, name: 'Another' }],
      ['caliper check', `/api/calipers/${caliper.id}/checks`, check, { ...check, deviationMm: -0.6 }],
    ] as const
  }

  it('is success for the same again and a conflict for anything else, whatever kind of fact', async () => {
    for (const [name, path, fact, otherwise] of await kinds()) {
      const first = await coach.send('POST', path, fact)
      expect(first.status, `${name}: ${first.text}`).toBeLessThan(300)
      expect((await coach.send('POST', path, fact)).status, `${name} again`).toBeLessThan(300)
      const taken = await coach.send('POST', path, otherwise)
      expect(taken.status, `${name} with other content`).toBe(409)
      expect(taken.body.message, name).toMatch(/^[A-Z].*\.$/)
    }
  })

  it('under two days in one delivery is refused as well, and stores neither', async () => {
    const client = someClient({ name: 'Two Days' })
    await coach.send('POST', '/api/clients', client)
    const one = { id: uuid(), day: '2026-03-01', value: 71, unit: 'kg', dry: true, source: 'typed' }
    const path = `/api/clients/${client.id}/weigh-ins`
    const both = await coach.send('POST', path, { weighIns: [one, { ...one, day: '2026-03-02' }] })
    expect(both.status).toBe(409)
    const { body } = await coach.send<ClientHistory>('GET', `/api/clients/${client.id}/history`)
    expect(body.weighIns).toEqual([])
  })

  it('of a weigh-in comes again on another day while its old day holds one: refused, not broken', async () => {
    const client = someClient({ name: 'Moved Day' })
    await coach.send('POST', '/api/clients', client)
    const path = `/api/clients/${client.id}/weigh-ins`
    const one = { id: uuid(), day: '2026-03-01', value: 71, unit: 'kg', dry: true, source: 'typed' }
    await coach.send('POST', path, { weighIns: [one] })
    await coach.send('DELETE', `${path}/${one.id}`)
    await coach.send('POST', path, { weighIns: [{ ...one, id: uuid() }] })
    expect((await coach.send('POST', path, { weighIns: [{ ...one, day: '2026-03-05' }] })).status).toBe(409)
    // Struck since, and sent again because its answer was lost: it stays struck.
    const again = await coach.send<WeighInRecord[]>('POST', path, { weighIns: [one] })
    expect(again.status).toBe(200)
    expect(again.body.map(({ id }) => id)).not.toContain(one.id)
  })
})

describe('limits', () => {
  it('are the same for schemas and the database: a wrist of 3.95 in is stored', async () => {
    const client = someClient({ name: 'Fine Wrist' })
    await coach.send('POST', '/api/clients', client)
    const { body } = await coach.send<{ id: string }>('POST', `/api/clients/${client.id}/checkins`, {
      id: uuid(),
      protocolId: 'full-tape',
      startedAt: now(),
    })
    const wrist = someReading({ site: 'wrist', value: 3.95, unit: 'in' })
    const sent = await coach.send('POST', `/api/checkins/${body.id}/events`, { readings: [wrist], strikes: [] })
    expect(sent.status, sent.text).toBe(200)
  })

  it.each(['a\ttab', 'a\nnew line', 'as it is', 'x'.repeat(40)])(
    'keep the way of lifting a fold to those there are (%j)',
    async (method) => {
      const { checkinId } = await startedCheckin(coach, someClient({ name: 'Way' }))
      const forged = someReading({ method })
      const sent = await coach.send('POST', `/api/checkins/${checkinId}/events`, { readings: [forged], strikes: [] })
      expect(sent.status).toBe(422)
      expect((await recordOf(checkinId)).readings).toEqual([])
    },
  )

  it('throw an empty check-in away with the sites left out in it, and keep one with a photograph', async () => {
    const { checkinId } = await startedCheckin(coach, someClient({ name: 'Only Skips' }))
    const skips = [{ id: uuid(), site: 'chest', reason: 'A graze.', at: now() }]
    await coach.send('POST', `/api/checkins/${checkinId}/events`, { readings: [], strikes: [], skips })
    expect((await coach.send('DELETE', `/api/checkins/${checkinId}`)).status).toBe(200)
    expect((await coach.send('GET', `/api/checkins/${checkinId}`)).status).toBe(404)
  })

  it('keep a minor from being measured until a guardian has agreed', async () => {
    const young = someClient({ name: 'Junior Sculler', birthDate: '2012-05-01' })
    await coach.send('POST', '/api/clients', young)
    const start = () => ({ id: uuid(), protocolId: 'laboratory-7', startedAt: now() })
    const without = await coach.send('POST', `/api/clients/${young.id}/checkins`, start())
    expect(without.status).toBe(409)
    expect(without.body.message).toContain('guardian')
    const { id, ...form } = young
    await coach.send('PATCH', `/api/clients/${id}`, {
      ...form,
      version: 1,
      guardianConsent: true,
      guardianName: 'Hild Osk',
      guardianConsentOn: '2026-01-10',
    })
    expect((await coach.send('POST', `/api/clients/${id}/checkins`, start())).status).toBe(201)
  })
})

describe('news of a check-in', () => {
  it('tells messages apart that are alike, and tells when it is thrown away', async () => {
    const { checkinId } = await startedCheckin(coach, someClient({ name: 'Three Alike' }))
    const stream = await coach.open(`/api/checkins/${checkinId}/stream`)
    const heard: string[] = []
    const reader = stream.body?.pipeThrough(new TextDecoderStream()).getReader()
    const listening = (async () => {
      for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) {
        heard.push(...part.value.split('\n').filter((line) => line.startsWith('data: {')))
        if (heard.length >= 4) return
      }
    })()
    for (let i = 0; i < 3; i += 1) await coach.send('PATCH', `/api/checkins/${checkinId}`, { note: `note ${i}` })
    await coach.send('DELETE', `/api/checkins/${checkinId}`)
    await listening
    await reader?.cancel()
    const messages = heard.map((line) => JSON.parse(line.slice(6)) as { kind: string })
    expect(messages.map(({ kind }) => kind)).toEqual(['changed', 'changed', 'changed', 'discarded'])
    expect(new Set(heard).size).toBe(4)
  })
})

describe('a check-in that was voided', () => {
  it('counts for nothing any more, keeps its facts and its reason, and lets another begin', async () => {
    const client = someClient({ name: 'Voided Rower' })
    await coach.send('POST', '/api/clients', client)
    const kept = await enterVisit(coach, client.id, { daysAgo: 30, values: FOLDS, kg: 60 })
    const wrong = await enterVisit(coach, client.id, { daysAgo: 2, values: FOLDS.map((mm) => mm + 9), kg: 60 })
    const path = `/api/checkins/${wrong}/void`
    expect((await coach.send('POST', path, { reason: ' ' })).body.fields.map(({ field }) => field)).toEqual(['reason'])
    const voided = await coach.send<ClientHistory>('POST', path, { reason: 'Another client stood there.' })
    expect(voided.body.checkins.map(({ id }) => id)).toEqual([kept])
    expect(voided.body.voided).toMatchObject([{ id: wrong, reason: 'Another client stood there.', by: 'Runa Bexley' }])
    expect((await recordOf(wrong)).readings).toHaveLength(15)
    const list = await coach.send<{ clients: { checkins: number }[] }>('GET', '/api/clients?q=Voided')
    expect(list.body.clients[0]?.checkins).toBe(1)
    const open = await startedCheckin(coach, client)
    await coach.send('POST', `/api/checkins/${open.checkinId}/events`, { readings: [someReading()], strikes: [] })
    expect((await coach.send('DELETE', `/api/checkins/${open.checkinId}`)).status).toBe(409)
    await coach.send('POST', `/api/checkins/${open.checkinId}/void`, { reason: 'Broken off.' })
    const again = await startedCheckin(coach, client)
    expect(again.checkinId).not.toBe(open.checkinId)
  })
})

describe('a page to take home', () => {
  it('is printed apart: others are answered while it is', async () => {
    const client = someClient({ name: 'Page Printer' })
    await coach.send('POST', '/api/clients', client)
    for (const daysAgo of [40, 20, 2]) await enterVisit(coach, client.id, { daysAgo, values: FOLDS, kg: 60 })
    const order: string[] = []
    const pages = Promise.all(
      Array.from({ length: 4 }, () =>
        coach.bytes(`/api/clients/${client.id}/take-home`).then(({ status }) => {
          expect(status).toBe(200)
          order.push('page')
        }),
      ),
    )
    await new Promise((wake) => setTimeout(wake, 60))
    for (let i = 0; i < 5; i += 1) await coach.send('GET', '/api/health').then(() => order.push('health'))
    await pages
    expect(order.filter((one) => one === 'page')).toHaveLength(4)
    // Printed where requests are answered, the last health check would come after the last page.
    expect(order.lastIndexOf('page')).toBe(order.length - 1)
  })
})
