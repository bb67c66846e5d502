import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { MeasuringFacts } from '../../shared/schemas/checkin'
import type { ClientHistory } from '../../shared/schemas/following'
import type { StudyLine, StudyRecord } from '../../shared/schemas/study'
import { Caller, LEAD, type Server, someClient, someReading } from '../support/api'

let server: Server
let lead: Caller
let ivo: Caller
let ids = { lead: '', ivo: '' }
const IVO = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', password: 'the-other-oar-holds', role: 'coach' }
const today = new Date().toISOString().slice(0, 10)

beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  lead = new Caller(server)
  await lead.signIn(LEAD)
  const me = await lead.send<{ staff: { id: string } }>('GET', '/api/me')
  const { body } = await lead.addPerson(IVO)
  ids = { lead: me.body.staff.id, ivo: body.id }
  ivo = new Caller(server)
  await ivo.signIn(IVO)
})
afterAll(() => server.remove())

/** A study of two assessors at two sites, with its pens' ids. */
function someStudy(change: Record<string, unknown> = {}) {
  const [a, b] = [uuid(), uuid()]
  return {
    id: uuid(),
    name: 'Spring, both coaches',
    kind: 'assessors',
    protocolId: 'laboratory-7',
    sites: ['thigh', 'triceps'],
    pens: [
      { id: a, staffId: ids.lead, caliperId: null, agreedOn: today },
      { id: b, staffId: ids.ivo, caliperId: null, agreedOn: today },
    ],
    referencePenId: a,
    group: false,
    ...change,
  }
}

async function someone(change: Record<string, unknown> = {}): Promise<string> {
  const client = someClient({ name: `Rower ${uuid().slice(-5)}`, ...change })
  await lead.send('POST', '/api/clients', client)
  return client.id
}

/** Measures one turn: both sites twice, and finishes it. Gives the check-in. */
async function measured(
  by: Caller,
  study: string,
  personId: string,
  penId: string,
  folds: [number, number],
  minute = 0,
) {
  const at = (second: number) => new Date(Date.now() - 7_200_000 + minute * 60_000 + second * 1000).toISOString()
  const started = await by.send<{ id: string }>('POST', `/api/studies/${study}/turns`, {
    id: uuid(),
    personId,
    penId,
    startedAt: at(0),
  })
  if (started.status !== 201) throw new Error(started.text)
  const { id } = started.body
  const readings = (['triceps', 'thigh'] as const).flatMap((site, i) =>
    [1, 2].map((round) => someReading({ site, round, value: folds[i], takenAt: at(10 + i * 10 + round) })),
  )
  const stored = await by.send('POST', `/api/checkins/${id}/events`, { readings, strikes: [] })
  if (stored.status !== 200) throw new Error(stored.text)
  await by.send('PATCH', `/api/checkins/${id}`, { finished: true })
  return id
}

describe('a study', () => {
  it('is set up once, at the set’s sites in its order', async () => {
    const study = someStudy()
    expect((await lead.send('POST', '/api/studies', study)).status).toBe(201)
    const again = await lead.send<StudyLine[]>('POST', '/api/studies', study)
    expect(again.body.filter(({ id }) => id === study.id)).toHaveLength(1)
    const { body } = await ivo.send<StudyRecord>('GET', `/api/studies/${study.id}`)
    expect(body).toMatchObject({ sites: ['triceps', 'thigh'], result: null, people: [], turns: [] })
    expect(body.pens[1]?.name).toBe('Ivo Tarn')
  })

  it('refuses what is none: nobody to compare, a site of another set, somebody twice, strangers, no name', async () => {
    const one = someStudy()
    const refused = async (change: Record<string, unknown>) => {
      const { status, body } = await lead.send('POST', '/api/studies', { ...someStudy(), ...change })
      expect(status).toBe(422)
      return body.fields.map(({ message }) => message)
    }
    expect(await refused({ pens: [one.pens[0]], referencePenId: one.pens[0]?.id })).toContain(
      'One assessor measures again; side by side takes two or more.',
    )
    expect(await refused({ sites: ['waist'] })).toContain('A site is not in this set.')
    expect(await refused({ sites: [] })).toContain('Choose at least one site.')
    expect(await refused({ name: ' ' })).toContain('Please name the study.')
    const twice = [one.pens[0], { ...one.pens[0], id: uuid() }]
    expect(await refused({ pens: twice, referencePenId: one.pens[0]?.id })).toContain('Somebody is named twice.')
    const stranger = [one.pens[0], { ...one.pens[1], staffId: uuid() }]
    expect(await refused({ pens: stranger, referencePenId: one.pens[0]?.id })).toContain(
      'Somebody who measures is not of this studio.',
    )
    expect(await refused({ referencePenId: uuid() })).toContain('Choose whom the others are compared with.')
  })

  it('takes only people whose consent is on record, each once', async () => {
    const study = someStudy()
    await lead.send('POST', '/api/studies', study)
    const path = `/api/studies/${study.id}/people`
    const silent = await lead.send('POST', path, { id: uuid(), clientId: await someone({ consentOn: null }) })
    expect([silent.status, silent.body.message]).toEqual([409, expect.stringContaining('consent')])
    const person = { id: uuid(), clientId: await someone() }
    expect((await lead.send('POST', path, person)).status).toBe(201)
    expect((await lead.send<StudyRecord>('POST', path, person)).body.people).toHaveLength(1)
    expect((await lead.send('POST', path, { ...person, id: uuid() })).body.message).toContain('in this study already')
    expect((await lead.send('POST', path, { id: uuid(), clientId: uuid() })).status).toBe(422)
    const gone = await lead.send<StudyRecord>('DELETE', `${path}/${person.id}`)
    expect(gone.body.people).toEqual([])
  })

  it('measures on the real log sheet: blind, no visit of the client’s, not before the assessor agreed', async () => {
    const study = someStudy()
    study.pens = study.pens.map((pen, i) => (i === 1 ? { ...pen, agreedOn: null as never } : pen))
    await lead.send('POST', '/api/studies', study)
    const clientId = await someone()
    const person = { id: uuid(), clientId }
    await lead.send('POST', `/api/studies/${study.id}/people`, person)
    const turn = { id: uuid(), personId: person.id, penId: study.pens[1]?.id, startedAt: new Date().toISOString() }
    const early = await ivo.send('POST', `/api/studies/${study.id}/turns`, turn)
    expect([early.status, early.body.message]).toEqual([409, expect.stringContaining('has not agreed')])
    await ivo.send('PUT', `/api/studies/${study.id}/pens/${study.pens[1]?.id}`, { agreedOn: today })
    expect((await ivo.send('POST', `/api/studies/${study.id}/turns`, turn)).status).toBe(201)
    // Pressed again, on another tablet too: the same turn.
    const again = await ivo.send<{ id: string }>('POST', `/api/studies/${study.id}/turns`, { ...turn, id: uuid() })
    expect(again.body.id).toBe(turn.id)
    const { body } = await ivo.send<MeasuringFacts>('GET', `/api/checkins/${turn.id}`)
    expect(body).toMatchObject({ blind: true, last: null, study: { id: study.id, trial: 1, kind: 'assessors' } })
    expect(body.checkin.studySites).toEqual(['triceps', 'thigh'])
    // A visit goes on beside it, and the turn is none.
    const visit = await lead.send('POST', `/api/clients/${clientId}/checkins`, {
      id: uuid(),
      protocolId: 'laboratory-7',
      startedAt: new Date().toISOString(),
    })
    expect(visit.status).toBe(201)
    const history = await lead.send<ClientHistory>('GET', `/api/clients/${clientId}/history`)
    expect(history.body.checkins.map(({ id }) => id)).not.toContain(turn.id)
    const over = await ivo.send('PATCH', `/api/checkins/${turn.id}`, { protocolId: 'tape-4' })
    expect([409, 422]).toContain(over.status)
    const floor = await lead.send<{ open: { checkinId: string }[] }>('GET', '/api/floor')
    expect(floor.body.open.map(({ checkinId }) => checkinId)).not.toContain(turn.id)
    // Thrown away while nothing is read, and begun anew.
    expect((await ivo.send('DELETE', `/api/checkins/${turn.id}`)).status).toBe(200)
    expect((await ivo.send('POST', `/api/studies/${study.id}/turns`, { ...turn, id: uuid() })).status).toBe(201)
  })

  it('shows nothing until it is closed, then the bias, and feeds every verdict until it is left out', async () => {
    const study = someStudy({ group: true })
    const [a, b] = study.pens.map(({ id }) => id) as [string, string]
    await lead.send('POST', '/api/studies', study)
    const turns: string[] = []
    for (let i = 0; i < 6; i += 1) {
      const person = { id: uuid(), clientId: await someone() }
      await lead.send('POST', `/api/studies/${study.id}/people`, person)
      turns.push(await measured(lead, study.id, person.id, a, [10 + i, 20 + i], i * 4))
      if (i === 5) {
        const early = await lead.send('POST', `/api/studies/${study.id}/close`, {})
        expect(early.body.message).toBe('1 turns are still to come: it is shown once all are done.')
      }
      await measured(ivo, study.id, person.id, b, [11 + i * 1.1, 22 + i * 1.1], i * 4 + 2)
    }
    const before = await lead.send<StudyRecord>('GET', `/api/studies/${study.id}`)
    expect(before.body.result).toBeNull()
    expect(JSON.stringify(before.body)).not.toContain('"value"')
    // Of a turn that was voided nothing counts, and it can be measured anew.
    await lead.send('POST', `/api/checkins/${turns[0]}/void`, { reason: 'wrong caliper' })
    const person = before.body.people[0]?.id ?? ''
    await measured(lead, study.id, person, a, [10, 20], 0)
    const twice = await lead.send('POST', `/api/studies/${study.id}/turns`, {
      id: uuid(),
      personId: person,
      penId: a,
      startedAt: new Date().toISOString(),
    })
    expect(twice.body.message).toBe('This turn has been measured.')
    const closed = await lead.send<StudyRecord>('POST', `/api/studies/${study.id}/close`, {})
    expect(closed.body.result?.people).toBe(6)
    const triceps = closed.body.result?.sides.find(({ site }) => site === 'triceps')
    expect(triceps?.pens[0]?.ratio?.value).toBeCloseTo(1.1, 2)
    const late = await lead.send('POST', `/api/studies/${study.id}/people`, { id: uuid(), clientId: await someone() })
    expect(late.body.message).toBe('This study is closed: what it says stands.')

    const clientId = await someone()
    const hands = async () => (await lead.send<ClientHistory>('GET', `/api/clients/${clientId}/history`)).body.hands
    expect((await hands()).filter(({ studyId }) => studyId === study.id)).toMatchObject([
      { of: 'assessor', from: ids.lead, to: ids.ivo, people: 6, day: expect.any(String) },
    ])
    const counted = await lead.send<ClientHistory>('GET', `/api/clients/${clientId}/history`)
    expect(counted.body.studies.map(({ id }) => id)).toContain(study.id)
    const leave = { reason: 'the marks were not wiped' }
    expect((await ivo.send('PUT', `/api/studies/${study.id}/left-out`, leave)).status).toBe(403)
    await lead.send('PUT', `/api/studies/${study.id}/left-out`, leave)
    expect((await hands()).filter(({ studyId }) => studyId === study.id)).toEqual([])
    const back = await lead.send<StudyRecord>('PUT', `/api/studies/${study.id}/left-out`, { reason: null })
    expect(back.body.leftOutReason).toBeNull()
    expect((await hands()).filter(({ studyId }) => studyId === study.id)).toHaveLength(1)
  })

  it('of calipers speaks of one no more once that is corrected: nothing is taken off twice', async () => {
    const [steel, worn] = [uuid(), uuid()]
    for (const [id, name] of [
      [steel, 'Steel'],
      [worn, 'Worn'],
    ])
      await lead.send('POST', '/api/calipers', { id, name })
    const pens = [steel, worn].map((caliperId) => ({ id: uuid(), staffId: null, caliperId, agreedOn: null }))
    const study = someStudy({ kind: 'calipers', pens, referencePenId: pens[0]?.id })
    await lead.send('POST', '/api/studies', study)
    for (let i = 0; i < 5; i += 1) {
      const person = { id: uuid(), clientId: await someone() }
      await lead.send('POST', `/api/studies/${study.id}/people`, person)
      for (const [j, { id }] of pens.entries())
        await measured(lead, study.id, person.id, id, [10 + i + j, 20 + i + j], i * 4 + 2 * j)
    }
    await lead.send('POST', `/api/studies/${study.id}/close`, {})
    const clientId = await someone()
    const counted = async () =>
      (await lead.send<ClientHistory>('GET', `/api/clients/${clientId}/history`)).body.hands.filter(
        ({ studyId }) => studyId === study.id,
      )
    expect(await counted()).toMatchObject([{ of: 'caliper', from: steel, to: worn, people: 5 }])
    const steps = [0, 20, 40].map((blockMm) => ({ blockMm, readMm: blockMm + 1 }))
    await lead.send('POST', `/api/calipers/${worn}/checks`, { id: uuid(), checkedOn: today, steps })
    await lead.send('POST', `/api/calipers/${worn}/correction`, { id: uuid(), taken: true })
    expect(await counted()).toEqual([])
  })

  it('takes a first turn that was voided anew as the first', async () => {
    const pen = { id: uuid(), staffId: ids.lead, caliperId: null, agreedOn: today }
    const study = someStudy({ kind: 'repeat', pens: [pen], referencePenId: pen.id })
    await lead.send('POST', '/api/studies', study)
    const person = { id: uuid(), clientId: await someone() }
    await lead.send('POST', `/api/studies/${study.id}/people`, person)
    const first = await measured(lead, study.id, person.id, pen.id, [10, 20], 0)
    await measured(lead, study.id, person.id, pen.id, [11, 21], 20)
    await lead.send('POST', `/api/checkins/${first}/void`, { reason: 'wrong side' })
    await measured(lead, study.id, person.id, pen.id, [10, 20], 40)
    const { body } = await lead.send<StudyRecord>('GET', `/api/studies/${study.id}`)
    expect(body.turns.map(({ trial }) => trial).sort()).toEqual([1, 2])
  })

  it('tells the other tablets that something was done, and never what', async () => {
    const study = someStudy()
    await lead.send('POST', '/api/studies', study)
    const stream = await ivo.open(`/api/studies/${study.id}/stream`)
    const reader = stream.body?.getReader()
    let heard = ''
    const listening = (async () => {
      while (!heard.includes('changed')) {
        const { value, done } = (await reader?.read()) ?? { value: undefined, done: true }
        if (done) break
        heard += new TextDecoder().decode(value)
      }
    })()
    await lead.send('POST', `/api/studies/${study.id}/people`, { id: uuid(), clientId: await someone() })
    await listening
    await reader?.cancel()
    expect(heard).toContain('"kind":"changed"')
  })

  it('names nobody to a coach who does not see them', async () => {
    const study = someStudy()
    await lead.send('POST', '/api/studies', study)
    const clientId = await someone({ name: 'Hidden Rower' })
    await lead.send('PUT', `/api/clients/${clientId}/coach`, { coachId: ids.lead })
    await lead.send('POST', `/api/studies/${study.id}/people`, { id: uuid(), clientId })
    await lead.send('PUT', '/api/studio/rules', { coachesSee: 'own', quietFrom: 20, quietTo: 8 })
    const seen = await ivo.send<StudyRecord>('GET', `/api/studies/${study.id}`)
    expect(seen.body.people.map(({ name }) => name)).toEqual(['Person 1'])
    expect((await lead.send<StudyRecord>('GET', `/api/studies/${study.id}`)).body.people[0]?.name).toBe('Hidden Rower')
    await lead.send('PUT', '/api/studio/rules', { coachesSee: 'all', quietFrom: 20, quietTo: 8 })
  })

  it('is nobody else’s', async () => {
    const { status } = await lead.send('GET', `/api/studies/${uuid()}`)
    expect(status).toBe(404)
    expect((await new Caller(server).send('GET', '/api/studies')).status).toBe(401)
  })
})
