import { existsSync, readdirSync, renameSync } from 'node:fs'
import { join } from 'node:path'
import sharp from 'sharp'
import { strFromU8, unzipSync } from 'fflate'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { DataJob, DataPage, Erased, FileLook, ImportLine, RetentionDue } from '../../shared/schemas/data'
import { studio } from '../../server/db/schema'
import type { Floor } from '../../shared/schemas/checkin'
import type { ClientPage } from '../../shared/schemas/client'
import type { ClientHistory } from '../../shared/schemas/following'
import type { RecordPage } from '../../shared/schemas/record'
import { Caller, LEAD, type Server, someClient, someReading, startedCheckin } from '../support/api'
import { until } from '../support/until'
import { broughtFile, endOf } from '../support/data'
import { storeOf } from '../support/database'
import { enterVisit } from '../support/visits'

let server: Server
let lead: Caller
beforeAll(async () => {
  server = await startServer({ filled: 'studio' })
  lead = new Caller(server)
  await lead.signIn(LEAD)
})
afterAll(() => server.remove())

const clients = async () => (await lead.send<ClientPage>('GET', '/api/clients')).body.clients
const history = async (id: string) => (await lead.send<ClientHistory>('GET', `/api/clients/${id}/history`)).body
const page = async () => (await lead.send<DataPage>('GET', '/api/data')).body

const LOG = `Date,Name,Sex,DOB,Weight kg,Triceps mm,Subscap mm
3/4/2025,Hanne Alder,F,12/3/1989,68.4,14.5,11
17/4/2025,Hanne Alder,F,12/3/1989,68.1,14,11
18/4/2025,Hanne Alder,F,12/3/1989,67.9,,
3/4/2025,Joris Fen,M,1/2/1978,80,10,12
`

async function look(id: string, plan: unknown = null): Promise<FileLook> {
  const job = await endOf(lead, await lead.send<DataJob>('POST', `/api/data/files/${id}/look`, { plan }))
  if (job.state !== 'done') throw new Error(job.sentence ?? job.state)
  return job.result as FileLook
}
const store = async (id: string, importId: string, plan: unknown = null) =>
  endOf(lead, await lead.send<DataJob>('POST', `/api/data/files/${id}/import`, { id: importId, plan }))

describe('a paper log', () => {
  const importId = uuid()

  it('is looked through before anything is stored: clients new, problems at their cells', async () => {
    const file = await broughtFile(lead, 'log.csv', LOG.replace('14.5,11', '145,11'))
    const { looked, table } = await look(file)
    expect(table?.plan.columns.map(({ means }) => means)).toEqual([
      'date',
      'client',
      'sex',
      'birth-date',
      'weight',
      'triceps',
      'subscapular',
    ])
    expect(looked).toMatchObject({ newClients: 2, checkins: 2, problemCount: 1 })
    expect(looked?.problems[0]).toMatchObject({ line: 2, column: 5 })
    const refused = await store(file, importId)
    expect(refused).toMatchObject({ state: 'failed' })
    expect(refused.sentence).toContain('nothing was stored')
    expect(await clients()).toEqual([])
  })

  it('comes in whole: check-ins, readings, weights of the diary, new clients', async () => {
    const file = await broughtFile(lead, 'log.csv', LOG)
    expect((await look(file)).looked).toMatchObject({ newClients: 2, checkins: 3, weighIns: 1, problemCount: 0 })
    expect((await store(file, importId)).state).toBe('done')
    const [hanne] = await clients()
    expect(hanne).toMatchObject({ name: 'Hanne Alder', checkins: 2 })
    const { checkins, weighIns, client } = await history(hanne?.id ?? '')
    expect(client).toMatchObject({ sex: 'female', birthDate: '1989-03-12' })
    expect(checkins.map(({ day }) => day)).toEqual(['2025-04-03', '2025-04-17'])
    expect(checkins[0]?.readings.map(({ site, value }) => [site, value])).toEqual([
      ['weight', 68.4],
      ['triceps', 14.5],
      ['subscapular', 11],
    ])
    expect(weighIns.map(({ day, value }) => [day, value])).toEqual([['2025-04-18', 67.9]])
    expect((await page()).imports[0]).toMatchObject({ fileName: 'log.csv', clients: 2, checkins: 3, weighIns: 1 })
  })

  it('brought in once more changes nothing, and says what is here', async () => {
    const file = await broughtFile(lead, 'log.csv', LOG)
    expect((await look(file)).looked).toMatchObject({ newClients: 0, matchedClients: 2, checkins: 0, here: 4 })
  })

  it('meets clients by name: another birth date, another sex, two of a name are said', async () => {
    const wrong = `Date,Name,Sex,DOB,Triceps mm\n2025-06-01,Hanne  ALDER,F,1989-03-13,12\n2025-06-01,Joris Fen,F,1978-02-01,12\n2025-06-01,New One,F,,12\n`
    const { looked } = await look(await broughtFile(lead, 'more.csv', wrong))
    const messages = looked?.problems.map(({ message }) => message) ?? []
    expect(messages[0]).toContain('another birth date')
    expect(messages[1]).toContain('on record here as male')
    expect(messages[2]).toContain('no client here yet: the birth date is needed')
  })

  it('remembers what a heading means once somebody has said it', async () => {
    const odd = 'Date,Name,Zwicker\n2025-07-01,Hanne Alder,12\n'
    const file = await broughtFile(lead, 'odd.csv', odd)
    const { table, looked } = await look(file)
    expect(looked?.problems[0]?.message).toContain('Zwicker: say what it holds')
    const plan = table?.plan
    const columns = plan?.columns.map((column, i) => (i === 2 ? { means: 'triceps', unit: 'mm', trial: 1 } : column))
    expect((await store(file, uuid(), { ...plan, columns, protocolId: 'youth-2' })).state).toBe('done')
    const again = await look(await broughtFile(lead, 'odd.csv', odd.replace('07-01', '08-01')))
    expect(again.table?.plan.columns[2]).toMatchObject({ means: 'triceps' })
  })

  it('is taken back by one press, until something was built on it', async () => {
    const file = await broughtFile(
      lead,
      'later.csv',
      'Date,Name,Sex,DOB,Triceps mm\n2025-09-01,Aila Reed,F,1990-01-01,12\n',
    )
    const id = uuid()
    await store(file, id)
    const aila = (await clients()).find(({ name }) => name === 'Aila Reed')
    await lead.send('POST', `/api/clients/${aila?.id}/weigh-ins`, {
      weighIns: [{ id: uuid(), day: '2025-09-02', value: 60, unit: 'kg', dry: true, source: 'typed' }],
    })
    const refused = await lead.send('POST', `/api/data/imports/${id}/take-back`, {})
    expect(refused.status).toBe(409)
    expect(refused.body.message).toContain('Something was built on this import')
    const back = await lead.send<ImportLine[]>('POST', `/api/data/imports/${importId}/take-back`, {})
    // The later odd.csv was built on one of its clients.
    expect(back.status).toBe(409)
    expect((await clients()).map(({ name }) => name)).toEqual(['Aila Reed', 'Hanne Alder', 'Joris Fen'])
    const odd = (await page()).imports.find(({ fileName }) => fileName === 'odd.csv')
    expect((await lead.send('POST', `/api/data/imports/${odd?.id}/take-back`, {})).status).toBe(200)
    expect((await lead.send('POST', `/api/data/imports/${importId}/take-back`, {})).status).toBe(200)
    expect((await clients()).map(({ name }) => name)).toEqual(['Aila Reed'])
    expect((await lead.send('POST', `/api/data/imports/${importId}/take-back`, {})).status).toBe(409)
  })
})

describe('long work', () => {
  it('is a lead’s alone, whatever of it', async () => {
    const ivo = { email: 'ivo@reedwater.example', password: 'paddles-of-ash-wood' }
    await lead.addPerson({ name: 'Ivo Tarn', ...ivo, role: 'coach' })
    const coach = new Caller(server)
    await coach.signIn(ivo)
    const file = await broughtFile(lead, 'log.csv', LOG)
    const job = await lead.send<DataJob>('POST', '/api/data/exports', { format: 'readings', clientId: null })
    for (const [method, path, body] of [
      ['GET', '/api/data', undefined],
      ['POST', '/api/data/exports', { format: 'archive', clientId: null }],
      ['POST', '/api/data/backups', {}],
      ['POST', `/api/data/files/${file}/look`, { plan: null }],
      ['GET', `/api/data/jobs/${job.body.id}`, undefined],
      ['GET', `/api/data/jobs/${job.body.id}/file`, undefined],
      ['DELETE', `/api/clients/${(await clients())[0]?.id}`, { name: 'Aila Reed' }],
      ['POST', `/api/clients/${(await clients())[0]?.id}/own-file`, {}],
      ['PUT', '/api/studio/retention', { clientMonths: null, photoMonths: null }],
    ] as const)
      expect((await coach.send(method, path, body)).status, path).toBe(403)
  })

  it('makes a file that is fetched, and is on record', async () => {
    const job = await endOf(
      lead,
      await lead.send<DataJob>('POST', '/api/data/exports', { format: 'archive', clientId: null }),
    )
    expect(job).toMatchObject({ state: 'done', kind: 'export' })
    expect(job.fileName).toMatch(/^reedwater-rowing-club-\d{4}-\d\d-\d\d\.oakpinch\.zip$/)
    const { bytes, headers } = await lead.bytes(`/api/data/jobs/${job.id}/file`)
    expect(headers.get('content-disposition')).toContain(job.fileName ?? '-')
    expect(Object.keys(unzipSync(new Uint8Array(bytes)))).toContain('manifest.json')
    const { lines } = (await lead.send<RecordPage>('GET', '/api/record?kind=data.exported')).body
    expect(lines.length).toBeGreaterThan(0)
  })

  it('says in a sentence what a file is not, and keeps nothing of it', async () => {
    for (const [name, content, sentence] of [
      ['diary.bin', Buffer.from([1, 2, 0, 3]), /no text/],
      ['empty.csv', '', /empty/],
      ['cut.zip', Buffer.from('PK\u0003\u0004 nothing'), /damaged, or no ZIP/],
      ['other.json', '{"resourceType":"Patient"}', /no FHIR bundle/],
    ] as const) {
      const id = await broughtFile(lead, name, content)
      const job = await endOf(lead, await lead.send<DataJob>('POST', `/api/data/files/${id}/look`, { plan: null }))
      expect(job.state, name).toBe('failed')
      expect(job.sentence, name).toMatch(sentence)
    }
  })

  it('is given up when somebody says so', async () => {
    const rows = Array.from(
      { length: 60_000 },
      (_, i) =>
        `${i % 2 ? 'Aila Reed' : 'Bram Fen'},F,1990-01-01,${1 + (i % 28)}/${1 + (i % 12)}/${1995 + (i % 30)},12`,
    )
    const file = await broughtFile(lead, 'long.csv', `Name,Sex,DOB,Date,Triceps mm\n${rows.join('\n')}\n`)
    const begun = await lead.send<DataJob>('POST', `/api/data/files/${file}/look`, { plan: null })
    await lead.send('DELETE', `/api/data/jobs/${begun.body.id}`)
    const ended = await endOf(lead, begun)
    expect(ended.state).toBe('stopped')
  })

  it('is watched and given up while it is stored, which keeps an embedded database from everybody else', async () => {
    const before = (await lead.send<ClientPage>('GET', '/api/clients')).body.total
    const rows = Array.from({ length: 30_000 }, (_, i) => {
      const day = new Date(Date.UTC(2015, 0, 1) + Math.floor(i / 50) * 86_400_000).toISOString().slice(0, 10)
      return `Many Rower ${i % 50},F,1950-01-01,${day},${10 + (i % 20)}`
    })
    const file = await broughtFile(lead, 'long.csv', `Name,Sex,DOB,Date,Triceps mm\n${rows.join('\n')}\n`)
    const begun = await lead.send<DataJob>('POST', `/api/data/files/${file}/import`, { id: uuid(), plan: null })
    const steps: number[] = []
    // Looked through once, then stored: rows are counted anew.
    const isStoring = () => steps.some((done, i) => done < (steps[i - 1] ?? 0))
    const storing = () => steps.slice(steps.findIndex((done, i) => done < (steps[i - 1] ?? 0)))
    await until(
      async () => {
        const { body } = await lead.send<DataJob>('GET', `/api/data/jobs/${begun.body.id}`)
        if (body.step) steps.push(body.step.done)
        return body.state
      },
      (state) => state !== 'running' || (isStoring() && new Set(storing()).size > 2),
    )
    expect(new Set(storing()).size).toBeGreaterThan(2)
    expect((await lead.send('DELETE', `/api/data/jobs/${begun.body.id}`)).status).toBe(200)
    expect((await endOf(lead, begun)).state).toBe('stopped')
    expect((await lead.send<ClientPage>('GET', '/api/clients')).body.total).toBe(before)
  })
})

describe('a backup', () => {
  it('is made by hand, verified, listed, and never left by halves', async () => {
    expect((await page()).backup).toMatchObject({ last: null, missed: false })
    const job = await endOf(lead, await lead.send<DataJob>('POST', '/api/data/backups', {}))
    expect(job.state).toBe('done')
    const { backup } = await page()
    expect(backup.count).toBe(1)
    expect(Date.now() - Date.parse(backup.last?.at ?? '')).toBeLessThan(60_000)
    expect(readdirSync(join(server.dataDir, 'backups')).filter((name) => name.endsWith('.part'))).toEqual([])
  })
})

describe('a night’s backup that was missed', () => {
  it('is said on the floor to leads, with the day of the last good one', async () => {
    const floor = async () => (await lead.send<Floor>('GET', '/api/floor')).body.backupMissed
    expect(await floor()).toBeNull()
    await server.end()
    const store = await storeOf(server)
    await store.database.update(studio).set({ createdAt: '2026-01-01T00:00:00Z' })
    await store.close()
    const [name = ''] = readdirSync(join(server.dataDir, 'backups'))
    renameSync(
      join(server.dataDir, 'backups', name),
      join(server.dataDir, 'backups', 'oak-pinch-2026-02-03T020000Z.oakpinch.zip'),
    )
    await server.start()
    expect(await floor()).toEqual({ lastAt: '2026-02-03T02:00:00.000Z', ahead: false })
    expect((await page()).backup).toMatchObject({ missed: true, count: 1 })
  })
})

describe('a client’s own data', () => {
  const rower = someClient({ name: 'Forgotten Rower', photoConsentOn: '2026-01-10' })
  const photo = uuid()

  it('is handed over whole: tables, readings, pictures, a page; nothing of anybody else, nothing that opens', async () => {
    const { checkinId } = await startedCheckin(lead, rower)
    await lead.send('POST', `/api/checkins/${checkinId}/events`, { readings: [someReading()], strikes: [] })
    const picture = await sharp({ create: { width: 60, height: 90, channels: 3, background: '#998877' } })
      .jpeg()
      .toBuffer()
    const query = new URLSearchParams({ id: photo, pose: 'front', takenAt: '2026-11-20T17:00:00.000Z' })
    await lead.sendBytes(`/api/checkins/${checkinId}/photos?${query}`, picture)
    await lead.send('PATCH', `/api/checkins/${checkinId}`, { finished: true })
    await enterVisit(lead, rower.id, { daysAgo: 20, values: [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24], kg: 60 })
    await lead.send('POST', `/api/clients/${rower.id}/links`, { id: uuid(), scope: ['weigh-ins'], sites: [], days: 14 })
    const job = await endOf(lead, await lead.send<DataJob>('POST', `/api/clients/${rower.id}/own-file`, {}))
    expect(job.sentence).toBeNull()
    const parts = unzipSync(new Uint8Array((await lead.bytes(`/api/data/jobs/${job.id}/file`)).bytes))
    const names = Object.keys(parts)
    for (const name of [
      'take-home.pdf',
      'readings.csv',
      'workbook.xlsx',
      'bundle.fhir.json',
      'contents.json',
      `photos/${photo}.jpg`,
    ])
      expect(names).toContain(name)
    const everything = names
      .filter((name) => name.startsWith('tables/'))
      .map((name) => strFromU8(parts[name] ?? new Uint8Array()))
      .join('\n')
    expect(everything).toContain('Forgotten Rower')
    expect(everything).not.toContain('Aila Reed')
    expect(everything).not.toMatch(/hash|token/)
    expect(
      strFromU8(parts['tables/checkin.jsonl'] ?? new Uint8Array())
        .trim()
        .split('\n'),
    ).toHaveLength(2)
  })

  it('is erased only by the name on record; then nothing of it is left but ids of the record', async () => {
    const refused = await lead.send('DELETE', `/api/clients/${rower.id}`, { name: 'Somebody Else' })
    expect(refused.status).toBe(422)
    expect(refused.body.fields?.[0]?.message).toContain('nothing was erased')
    const { status, body } = await lead.send<Erased>('DELETE', `/api/clients/${rower.id}`, { name: 'forgotten rower' })
    expect(status).toBe(200)
    expect(body.backups).toHaveLength(1)
    expect(body.backups[0]?.goneBy).toMatch(/^\d{4}-\d\d-\d\d$/)
    expect((await lead.send('GET', `/api/clients/${rower.id}`)).status).toBe(404)
    expect(existsSync(join(server.dataDir, 'photos', `${photo}.jpg`))).toBe(false)
    const job = await endOf(
      lead,
      await lead.send<DataJob>('POST', '/api/data/exports', { format: 'archive', clientId: null }),
    )
    const parts = unzipSync(new Uint8Array((await lead.bytes(`/api/data/jobs/${job.id}/file`)).bytes))
    for (const [name, bytes] of Object.entries(parts)) {
      const text = strFromU8(bytes)
      expect(text, name).not.toContain('Forgotten Rower')
      if (name !== 'tables/audit.jsonl') expect(text, name).not.toContain(rower.id)
    }
    const erased = (await lead.send<RecordPage>('GET', '/api/record?kind=client.erased')).body.lines
    expect(erased).toHaveLength(1)
  })
})

describe('rules of retention', () => {
  it('are none at first; what falls due is shown, and goes only when it is asked for', async () => {
    const old = someClient({ name: 'Long Gone' })
    await lead.send('POST', '/api/clients', old)
    await enterVisit(lead, old.id, { daysAgo: 900, values: [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24], kg: 60 })
    expect((await page()).due).toEqual({ clients: [], photos: 0 })
    const short = await lead.send('PUT', '/api/studio/retention', { clientMonths: 2, photoMonths: null })
    expect(short.body.fields?.[0]?.message).toContain('Six months at least')
    const due = await lead.send<RetentionDue>('PUT', '/api/studio/retention', { clientMonths: 24, photoMonths: 12 })
    // A client added today is not due, however long ago they were measured on paper.
    expect(due.body.clients).toEqual([])
    const someone = (await clients()).find(({ name }) => name === 'Long Gone')
    const kept = await lead.send<RetentionDue>('POST', '/api/data/retention', {
      clientIds: [someone?.id],
      photos: true,
    })
    expect(kept.body).toEqual({ clients: [], photos: 0 })
    expect((await clients()).some(({ name }) => name === 'Long Gone')).toBe(true)
  })
})

describe('signed in as nobody', () => {
  it('none of it answers', async () => {
    const stranger = new Caller(server)
    for (const path of ['/api/data', `/api/data/jobs/${uuid()}`, `/api/data/jobs/${uuid()}/file`])
      expect((await stranger.send('GET', path)).status).toBe(401)
    expect((await stranger.sendBytes('/api/data/files?name=x', Buffer.from('x'))).status).toBe(401)
  })
})
