import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays } from '../../core/calendar'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { AbsenceRecord, Me, StaffMember } from '../../shared/schemas/account'
import type { CheckinRecord } from '../../shared/schemas/checkin'
import type { ClientPage } from '../../shared/schemas/client'
import type { ClientHistory } from '../../shared/schemas/following'
import type { ReminderRecord } from '../../shared/schemas/link'
import type { Mailbox } from '../../shared/schemas/mail'
import type { StudioSet } from '../../shared/schemas/set'
import { Caller, LEAD, type Server, someClient, someReading } from '../support/api'

const today = new Date().toISOString().slice(0, 10)
let server: Server
let lead: Caller
let ivo: Caller
let ivoId = ''
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  lead = new Caller(server)
  await lead.signIn(LEAD)
})
afterAll(() => server.remove())

const me = async (who: Caller) => (await who.send<Me>('GET', '/api/me')).body
const names = async (who: Caller) =>
  (await who.send<ClientPage>('GET', '/api/clients')).body.clients.map(({ name }) => name).sort()

describe('inviting a coach', () => {
  const person = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', role: 'coach' }

  it('gives a link by which they choose their own password, once', async () => {
    const { body, status } = await lead.send<{ person: StaffMember; link: string }>('POST', '/api/staff/invite', person)
    expect(status).toBe(201)
    ivoId = body.person.id
    const token = body.link.split('#')[1]
    ivo = new Caller(server)
    const signIn = (password: string) => ivo.send('POST', '/api/sign-in', { email: person.email, password })
    // Until then nobody signs in, with no password and with any.
    expect((await signIn('none yet')).status).toBe(401)
    expect((await ivo.send('POST', '/api/password-reset', { token, password: 'short' })).status).toBe(422)
    expect((await ivo.send('POST', '/api/password-reset', { token, password: 'copper-meadow-violin' })).status).toBe(
      200,
    )
    expect((await signIn('copper-meadow-violin')).status).toBe(200)
    expect((await ivo.send('POST', '/api/password-reset', { token, password: 'another-copper-violin' })).status).toBe(
      404,
    )
    expect((await lead.send('POST', '/api/staff/invite', person)).status).toBe(409)
    expect((await ivo.send('POST', '/api/staff/invite', { ...person, email: 'x@y.example' })).status).toBe(403)
  })
})

describe('who sees whom', () => {
  it('is everybody until the lead says otherwise; then their own, those of nobody, and those they stand in for', async () => {
    const [hers, his, nobodys] = ['Hers Rower', 'His Rower', 'Nobodys Rower'].map((name) => someClient({ name }))
    for (const one of [hers, his, nobodys]) await lead.send('POST', '/api/clients', one)
    const leadId = (await me(lead)).staff.id
    await lead.send('PUT', `/api/clients/${hers?.id}/coach`, { coachId: leadId })
    await lead.send('PUT', `/api/clients/${his?.id}/coach`, { coachId: ivoId })
    expect(await names(ivo)).toEqual(['Hers Rower', 'His Rower', 'Nobodys Rower'])
    expect((await ivo.send('PUT', '/api/studio/rules', { coachesSee: 'own' })).status).toBe(403)
    expect((await lead.send<Me>('PUT', '/api/studio/rules', { coachesSee: 'own' })).body.rules.coachesSee).toBe('own')
    expect(await names(ivo)).toEqual(['His Rower', 'Nobodys Rower'])
    expect(await names(lead)).toEqual(['Hers Rower', 'His Rower', 'Nobodys Rower'])
    // Not by the side doors either.
    const closed = [
      ['GET', `/api/clients/${hers?.id}`],
      ['GET', `/api/clients/${hers?.id}/history`],
      ['GET', `/api/clients/${hers?.id}/prepare`],
      ['GET', `/api/clients/${hers?.id}/from-home`],
      ['GET', `/api/clients/${hers?.id}/take-home`],
      ['GET', `/api/clients/${hers?.id}/booking-proposal`],
    ] as const
    for (const [method, path] of closed) expect((await ivo.send(method, path)).status, path).toBe(404)
    const visit = {
      clientId: hers?.id,
      assessorId: null,
      minutes: 30,
      visits: [{ id: uuid(), startsAt: `${addDays(today, 2)}T10:00:00Z` }],
    }
    expect((await ivo.send('POST', '/api/bookings', visit)).status).toBe(422)
    await lead.send('POST', '/api/bookings', visit)
    const week = `/api/bookings?from=${today}&to=${addDays(today, 6)}`
    expect((await ivo.send(`GET`, week)).text).not.toContain('Hers Rower')

    const away = {
      id: uuid(),
      staffId: leadId,
      standInId: ivoId,
      fromDay: addDays(today, -1),
      toDay: addDays(today, 3),
    }
    expect((await ivo.send('POST', '/api/absences', away)).status).toBe(403)
    expect((await lead.send<AbsenceRecord[]>('POST', '/api/absences', away)).body).toHaveLength(1)
    expect(await names(ivo)).toEqual(['Hers Rower', 'His Rower', 'Nobodys Rower'])
    expect((await ivo.send(`GET`, week)).text).toContain('Hers Rower')
    await lead.send('DELETE', `/api/absences/${away.id}`)
    expect(await names(ivo)).toEqual(['His Rower', 'Nobodys Rower'])

    // Whoever is added by a coach is theirs.
    const added = someClient({ name: 'Added By Ivo' })
    await ivo.send('POST', '/api/clients', added)
    expect((await lead.send<{ coachId: string }>('GET', `/api/clients/${added.id}`)).body.coachId).toBe(ivoId)
    await lead.send('PUT', '/api/studio/rules', { coachesSee: 'all' })
  })

  it.each([
    ['days that have been', { fromDay: addDays(today, -9), toDay: addDays(today, -4) }, 'These days have been'],
    ['days the wrong way round', { fromDay: addDays(today, 4), toDay: addDays(today, 2) }, 'before the first'],
    ['a stranger', { standInId: uuid() }, 'no such person'],
  ])('takes no absence of %s', async (_, wrong, sentence) => {
    const days = { id: uuid(), staffId: ivoId, standInId: null, fromDay: today, toDay: addDays(today, 2), ...wrong }
    const { status, text } = await ivo.send('POST', '/api/absences', days)
    expect(status).toBe(422)
    expect(text).toContain(sentence)
  })
})

describe('a set of one’s own', () => {
  const first = {
    id: uuid(),
    setId: uuid(),
    name: 'Lake four',
    sites: ['triceps', 'thigh', 'abdominal', 'waist'],
    policy: 'laboratory',
    girthPolicy: 'tape',
  }

  it('is used like any other, keeps its versions, and a history stays what it was', async () => {
    expect((await ivo.send('POST', '/api/sets', first)).status).toBe(403)
    expect((await lead.send<StudioSet[]>('POST', '/api/sets', first)).body).toMatchObject([
      { version: 1, offered: true },
    ])
    expect((await lead.send<StudioSet[]>('POST', '/api/sets', first)).body).toHaveLength(1)
    const client = someClient({ name: 'Set Rower' })
    await lead.send('POST', '/api/clients', client)
    const start = { id: uuid(), protocolId: first.id, startedAt: new Date(Date.now() - 1000).toISOString() }
    expect((await lead.send('POST', `/api/clients/${client.id}/checkins`, start)).status).toBe(201)
    const send = (site: string) =>
      lead.send('POST', `/api/checkins/${start.id}/events`, {
        readings: [someReading({ site, value: 14 })],
        strikes: [],
      })
    expect((await send('triceps')).status).toBe(200)
    // A site that is not in it belongs elsewhere.
    expect((await send('biceps')).status).toBe(422)
    const second = {
      ...first,
      id: uuid(),
      name: 'Lake five',
      sites: ['triceps', 'biceps', 'thigh', 'abdominal', 'waist'],
    }
    const { body } = await lead.send<StudioSet[]>('POST', '/api/sets', second)
    expect(body.map(({ version, offered }) => [version, offered])).toEqual([
      [1, false],
      [2, true],
    ])
    const record = (await lead.send<ClientHistory>('GET', `/api/clients/${client.id}/history`)).body
      .checkins[0] as CheckinRecord
    expect(record.protocolId).toBe(first.id)
    expect((await send('biceps')).status).toBe(422)
    expect((await me(ivo)).sets.map(({ name }) => name)).toEqual(['Lake four', 'Lake five'])
    // Known again after a start, and on the page to take home, which is printed elsewhere.
    await lead.send('PATCH', `/api/checkins/${start.id}`, { finished: true })
    await server.end()
    await server.start()
    expect((await lead.bytes(`/api/clients/${client.id}/take-home`)).status).toBe(200)
    const again = { ...start, id: uuid(), protocolId: second.id }
    expect((await lead.send('POST', `/api/clients/${client.id}/checkins`, again)).status).toBe(201)
    expect(
      (await lead.send<StudioSet[]>('DELETE', `/api/sets/${first.setId}`)).body.every(({ offered }) => !offered),
    ).toBe(true)
    expect((await lead.send('DELETE', `/api/sets/${uuid()}`)).status).toBe(404)
  })

  it.each([
    ['no site', { sites: [] }, 'at least one site'],
    ['a site twice', { sites: ['triceps', 'triceps'] }, 'each site once'],
    ['a site of nobody’s', { sites: ['elbow'] }, 'not known'],
    ['no name', { name: '  ' }, 'name the set'],
  ])('is refused with %s', async (_, wrong, sentence) => {
    const { status, text } = await lead.send('POST', '/api/sets', { ...first, id: uuid(), setId: uuid(), ...wrong })
    expect(status).toBe(422)
    expect(text).toContain(sentence)
  })
})

describe('reminders', () => {
  it('are set at a client, land in the mailbox that ships, and stop with one press', async () => {
    await lead.send('PUT', '/api/studio/rules', { quietFrom: 3, quietTo: 3 })
    const client = someClient({ name: 'Reminded Rower' })
    await lead.send('POST', '/api/clients', client)
    const set = (change: object) =>
      lead.send<ReminderRecord>('PUT', `/api/clients/${client.id}/reminders`, {
        id: uuid(),
        email: 'rower@lake.example',
        visits: true,
        handIns: false,
        handInWeekday: 7,
        ...change,
      })
    expect((await set({ email: null })).text).toContain('need an address')
    expect((await set({})).body.visits).toBe(true)
    const startsAt = new Date(Date.now() + 20 * 3_600_000).toISOString()
    await lead.send('POST', '/api/bookings', {
      clientId: client.id,
      assessorId: null,
      minutes: 30,
      visits: [{ id: uuid(), startsAt }],
    })
    // Until a lead has confirmed the studio's address nothing is written: it could not be stopped.
    const before = (await lead.send<Mailbox>('POST', '/api/mail/send', {})).body
    expect(before.mails.some(({ to }) => to === 'rower@lake.example')).toBe(false)
    expect((await ivo.send('PUT', '/api/mail/address', { address: null })).status).toBe(403)
    await lead.send('PUT', '/api/mail/address', { address: 'https://reedwater.example' })
    const { body } = await lead.send<Mailbox>('POST', '/api/mail/send', {})
    expect(body.real).toBe(false)
    const mail = body.mails.find(({ to }) => to === 'rower@lake.example')
    expect(mail?.sentAt).not.toBeNull()
    const token = /#([\w-]{43})$/.exec(mail?.words ?? '')?.[1]
    const stranger = new Caller(server)
    expect((await stranger.send('POST', '/api/stop-mail', { token: 'x'.repeat(43) })).status).toBe(404)
    expect((await stranger.send('POST', '/api/stop-mail', { token })).status).toBe(200)
    expect(
      (await lead.send<{ reminders: ReminderRecord }>('GET', `/api/clients/${client.id}/from-home`)).body.reminders,
    ).toMatchObject({ visits: false, email: 'rower@lake.example' })
    expect((await ivo.send('GET', '/api/mail')).status).toBe(403)
  })
})
