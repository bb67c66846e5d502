import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { addDays, localDay } from '../../core/calendar'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { Me, StaffRecord } from '../../shared/schemas/account'
import type { ChallengeFacts } from '../../shared/schemas/challenge'
import type { DataJob, Erased } from '../../shared/schemas/data'
import type { RecordPage } from '../../shared/schemas/record'
import type { StudyRecord } from '../../shared/schemas/study'
import { Caller, LEAD, someClient, someReading, startedCheckin, type Server } from '../support/api'
import { readCalendar } from '../support/calendar'
import { broughtFile, endOf } from '../support/data'
import { everyone, NAMES, type Everyone } from '../support/everyone'
import { sendRaw } from '../support/raw-request'
import { enterVisit } from '../support/visits'
import { sheetOf } from '../support/xml-bomb'

/** What an attack on the running application found (15 scripts, 2026-11): each stays here. */
const today = localDay(Date.now(), 'UTC')
const FOLDS = [16.5, 11.5, 8, 9.5, 12.5, 19.5, 24]

describe('an archive brought into a studio in use', () => {
  let server: Server
  let lead: Caller
  beforeAll(async () => {
    server = await startServer({ filled: 'studio', env: { CONFIRM_AFTER_MINUTES: String(6 / 60) } })
    lead = new Caller(server)
    await lead.signIn(LEAD)
  })
  afterAll(() => server.remove())

  it('wants a fresh proof, makes nobody a lead, and writes nothing into the log but itself', async () => {
    await lead.send('POST', '/api/clients', someClient({ name: 'Hanne Alder' }))
    const made = await endOf(
      lead,
      await lead.send<DataJob>('POST', '/api/data/exports', { format: 'archive', clientId: null }),
    )
    const parts = unzipSync(new Uint8Array((await lead.bytes(`/api/data/jobs/${made.id}/file`)).bytes))
    const people = strFromU8(parts['tables/staff.jsonl'] ?? new Uint8Array())
    const [own] = people
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>)
    const mal = { ...own, id: uuid(), name: 'Mal Ice', email: 'mal@x.example', role: 'lead' }
    parts['tables/staff.jsonl'] = strToU8(`${people}${JSON.stringify(mal)}\n`)
    const manifest = JSON.parse(strFromU8(parts['manifest.json'] ?? new Uint8Array())) as {
      tables: { table: string; rows: number; sha256: string }[]
    }
    const { createHash } = await import('node:crypto')
    for (const one of manifest.tables)
      if (one.table === 'staff')
        Object.assign(one, {
          rows: one.rows + 1,
          sha256: createHash('sha256').update(parts['tables/staff.jsonl']).digest('hex'),
        })
    parts['manifest.json'] = strToU8(JSON.stringify(manifest))
    const file = await broughtFile(lead, 'forged.oakpinch.zip', Buffer.from(zipSync(parts)))
    await new Promise((done) => setTimeout(done, 6_100))
    const stale = await lead.send('POST', `/api/data/files/${file}/import`, { id: uuid(), plan: null })
    expect([stale.status, stale.body.confirm]).toEqual([403, true])
    await lead.send('POST', '/api/me/confirm', { password: LEAD.password })
    const job = await endOf(
      lead,
      await lead.send<DataJob>('POST', `/api/data/files/${file}/import`, { id: uuid(), plan: null }),
    )
    expect(job.state).toBe('done')
    expect((await lead.send<StaffRecord[]>('GET', '/api/staff')).body.map(({ name }) => name)).toEqual(['Runa Bexley'])
    const log = (await lead.send<RecordPage>('GET', '/api/record')).body.lines
    expect(log.filter(({ kind }) => kind === 'archive.imported')).toHaveLength(1)
    expect(log.filter(({ kind }) => kind === 'studio.made')).toHaveLength(1)
    expect((await lead.send('GET', '/api/record/check')).text).toContain('"fault":null')
  })
})

describe('guessing, addresses and bodies', () => {
  let server: Server
  let lead: Caller
  beforeAll(async () => {
    server = await startServer({ filled: 'studio', env: { NUXT_TRUSTED_PROXIES: '127.0.0.1' } })
    lead = new Caller(server)
    await lead.signIn(LEAD)
  })
  afterAll(() => server.remove())
  const from = (address: string) => ({ 'x-forwarded-for': address })

  it('a stranger’s bad passkeys stop nobody else', async () => {
    const proof = (id: string) => ({
      id,
      rawId: id,
      type: 'public-key',
      response: { clientDataJSON: 'e30', authenticatorData: 'AAAA', signature: 'AAAA' },
    })
    const send = (id: string, address: string) =>
      new Caller(server).send('POST', '/api/sign-in/passkey', proof(id), undefined, from(address))
    const tried = await Promise.all(Array.from({ length: 9 }, () => send('c3RyYW5nZXI', '10.0.0.1')))
    expect(tried.some(({ status }) => status === 429)).toBe(true)
    // Another passkey, from another place: looked at, not held up.
    expect((await send('c29tZWJvZHk', '10.0.0.2')).status).toBe(422)
  })

  it('mails link to the confirmed address and never to what a request calls itself', async () => {
    // Known on one device, signed in on another: a mail is written about it.
    const elsewhere = new Caller(server)
    const { status } = await sendRaw(server.address, {
      method: 'POST',
      target: '/api/sign-in',
      headers: {
        ...elsewhere.sentHeaders(),
        host: 'evil.example',
        origin: 'http://evil.example',
        'content-type': 'application/json',
      },
      body: JSON.stringify(LEAD),
    })
    expect(status).toBe(200)
    const folder = join(server.dataDir, 'mail')
    /** Every mail that lies there, its lines joined again (quoted-printable), once one of them says this. */
    const mails = async (what: string) => {
      const read = () =>
        (statSync(folder, { throwIfNoEntry: false }) ? readdirSync(folder) : [])
          .map((name) => readFileSync(join(folder, name), 'utf8').replace(/=\n/g, ''))
          .join('\n')
      for (let i = 0; i < 40 && !read().includes(what); i += 1) await new Promise((done) => setTimeout(done, 100))
      return read()
    }
    const first = await mails('Studio, Account')
    expect(first).toContain('Studio, Account')
    expect(first).not.toMatch(/evil|https?:/)
    const confirm = (address: unknown) => lead.send('PUT', '/api/mail/address', { address })
    expect((await confirm('evil')).body.fields[0]?.field).toBe('address')
    expect((await confirm('https://studio.example/path')).status).toBe(422)
    expect((await confirm('https://Studio.example/')).text).toContain('"confirmed":"https://studio.example"')
    await new Caller(server).signIn(LEAD)
    expect(await mails('https://studio')).toContain('https://studio.example/studio/account')
  })

  it('JSON nested without end is refused in a sentence', async () => {
    for (const [open, close] of [
      ['[', ']'],
      ['{"a":', '}'],
    ] as const) {
      const raw = `${open.repeat(80_000)}1${close.repeat(80_000)}`
      const { status, body } = await new Caller(server).send('POST', '/api/sign-in', undefined, raw)
      expect([status, body.fields[0]?.message]).toEqual([400, 'What was sent is nested too deeply.'])
    }
    // Brackets in a text are letters.
    const { status } = await lead.send('POST', '/api/clients', someClient({ notes: '['.repeat(500) }))
    expect(status).toBe(201)
  })

  it('a calendar’s address is paced, and refusals are in the log', async () => {
    const ask = () =>
      new Caller(server).send('GET', `/feed/${'x'.repeat(43)}.ics`, undefined, undefined, from('10.0.0.9'))
    const asked = await Promise.all(Array.from({ length: 70 }, ask))
    expect(asked.filter(({ status }) => status === 429).length).toBeGreaterThan(5)
    const wrong = { email: 'nobody@reedwater.example', password: 'not-this-one-either' }
    for (let i = 0; i < 8; i += 1)
      await new Caller(server).send('POST', '/api/sign-in', wrong, undefined, from('10.0.0.8'))
    const locked = new Caller(server)
    await locked.send('POST', '/api/sign-in', LEAD, undefined, from('10.0.0.7'))
    await locked.send('POST', '/api/lock', {})
    expect((await locked.send('GET', '/api/clients')).status).toBe(423)
    // The log arrives through a pipe, after the answer.
    const said = (what: RegExp) => vi.waitFor(() => expect(server.said()).toMatch(what), { timeout: 20_000 })
    for (const why of ['too many requests', 'too many attempts', 'locked'])
      await said(new RegExp(`"what":"refused"[^\n]*"why":"${why}"|"why":"${why}"[^\n]*"what":"refused"`))
    await said(/"what":"audit log","end":"\d+:[\da-f]{64}"/)
  })

  it('a lead gives people links, and types no password for them', async () => {
    const person = { name: 'Ivo Tarn', email: 'ivo@reedwater.example', role: 'coach' }
    const typed = await lead.send('POST', '/api/staff', { ...person, password: 'the-other-oar-holds' })
    expect([typed.status, typed.body.fields[0]?.field]).toEqual([422, 'password'])
    expect((await lead.send<{ link: string }>('POST', '/api/staff', person)).body.link).toMatch(
      /new-password#[\w-]{43}$/,
    )
  })

  it('the end of the audit log is on its page and can be checked later', async () => {
    const { end } = (await lead.send<RecordPage>('GET', '/api/record')).body
    expect(end).toMatch(/^\d+:[\da-f]{64}$/)
    const check = (noted: string) => lead.send<{ fault: string | null }>('GET', `/api/record/check?noted=${noted}`)
    expect((await check(end ?? '')).body.fault).toBeNull()
    const [seq] = (end ?? '').split(':')
    expect((await check(`${seq}:${'0'.repeat(64)}`)).body.fault).toContain('does not have the hash that was noted')
    expect((await check('nonsense')).status).toBe(422)
  })
})

describe('a file that unpacks to far more than a log', () => {
  let server: Server
  let lead: Caller
  beforeAll(async () => {
    server = await startServer({ filled: 'studio' })
    lead = new Caller(server)
    await lead.signIn(LEAD)
  })
  afterAll(() => server.remove())
  const residentMb = () => {
    const status = readFileSync(`/proc/${server.pid()}/status`, 'utf8')
    return Number(/VmHWM:\s+(\d+)/.exec(status)?.[1]) / 1024
  }

  it.each<[string, () => Promise<Buffer>]>([
    [
      'one attribute of 300 MB',
      () => sheetOf('<worksheet><sheetData><row r="1"><c r="', 'A>', 300, '"/></row></sheetData></worksheet>'),
    ],
    ['one comment of 300 MB', () => sheetOf('<worksheet><!--', 'x', 300, '--></worksheet>')],
    ['elements without end', () => sheetOf('<worksheet>', '<a>', 100)],
  ])('is refused at once, whatever is in it: %s', async (_, made) => {
    const before = residentMb()
    const file = await broughtFile(lead, 'log.xlsx', await made())
    const job = await endOf(lead, await lead.send<DataJob>('POST', `/api/data/files/${file}/look`, { plan: null }))
    expect([job.state, job.sentence]).toEqual([
      'failed',
      expect.stringMatching(/no workbook that can be read|more than it can/),
    ])
    expect(residentMb() - before).toBeLessThan(200)
    expect((await lead.send('GET', '/api/me')).status).toBe(200)
  })

  it.each([
    ['memory', { IMPORT_MEMORY_MB: '40' }, 120],
    ['time', { IMPORT_SECONDS: '0.001' }, 0.9],
  ] as const)('that takes too much %s ends its own thread and nothing else', async (_, env, megabytes) => {
    const small = await startServer({ filled: 'studio', env })
    const own = new Caller(small)
    await own.signIn(LEAD)
    const bundle = `{"resourceType":"Bundle","type":"collection","entry":[{"resource":{"id":"${'x'.repeat(megabytes * 1024 ** 2)}"}}]}`
    const file = await broughtFile(own, 'bundle.json', bundle)
    const job = await endOf(own, await own.send<DataJob>('POST', `/api/data/files/${file}/look`, { plan: null }))
    expect([job.state, job.sentence]).toEqual(['failed', expect.stringContaining('more memory or time to read')])
    expect((await own.send('GET', '/api/clients')).status).toBe(200)
    await small.remove()
  })
})

describe('a coach kept to their own clients', () => {
  let studio: Everyone
  beforeAll(async () => (studio = await everyone()), 120_000)
  afterAll(() => studio.server.remove())

  it('reads no other client’s name in challenges, their protocol, studies or a calendar', async () => {
    const [lead, coach] = [studio.callers.lead.caller, studio.callers.coach.caller]
    const [ivos = '', runas = ''] = studio.known.clients ?? []
    const me = (await coach.send<Me>('GET', '/api/me')).body.staff.id
    // A challenge with one client of each.
    const id = uuid()
    const challenge = { name: 'Winter lake', startsOn: addDays(today, -56), endsOn: addDays(today, 7), figure: 'sum' }
    await lead.send('POST', '/api/challenges', {
      id,
      ...challenge,
      categories: 'none',
      teams: [],
      prizeRule: 'share',
      accepted: true,
    })
    const entry = (clientId: string) => ({
      id: uuid(),
      clientId,
      shownAs: 'name',
      alias: '',
      team: null,
      consentOn: today,
    })
    const others = entry(runas)
    for (const one of [entry(ivos), others])
      expect((await lead.send('POST', `/api/challenges/${id}/entries`, one)).status).toBe(201)
    const seen = await coach.send<ChallengeFacts>('GET', `/api/challenges/${id}`)
    expect(seen.body.entries.map(({ clientName, clientId }) => [clientName, clientId !== null]).sort()).toEqual([
      ['Another coach’s client', false],
      [NAMES.ivos, true],
    ])
    expect(seen.text).not.toContain(runas)
    expect((await lead.send<ChallengeFacts>('GET', `/api/challenges/${id}`)).text).toContain(NAMES.runas)
    expect((await coach.send('DELETE', `/api/challenges/${id}/entries/${others.id}`)).status).toBe(404)
    // A study with both.
    const pens = [me, (await lead.send<Me>('GET', '/api/me')).body.staff.id].map((staffId) => ({
      id: uuid(),
      staffId,
      caliperId: null,
      agreedOn: today,
    }))
    const study = {
      id: uuid(),
      name: 'Both',
      kind: 'assessors',
      protocolId: 'laboratory-7',
      sites: ['thigh', 'triceps'],
    }
    const made = await lead.send('POST', '/api/studies', { ...study, pens, referencePenId: pens[0]?.id, group: false })
    expect(made.status).toBe(201)
    for (const clientId of [ivos, runas])
      await lead.send('POST', `/api/studies/${study.id}/people`, { id: uuid(), clientId })
    const found = await coach.send<StudyRecord>('GET', `/api/studies/${study.id}`)
    expect(found.body.people.map(({ name, clientId }) => [name, clientId])).toEqual([
      [NAMES.ivos, ivos],
      ['Person 2', null],
    ])
    // Visits with this coach of clients that are another's stay out of their calendar.
    for (const clientId of [ivos, runas])
      await lead.send('POST', '/api/bookings', {
        clientId,
        assessorId: me,
        minutes: 30,
        place: '',
        visits: [{ id: uuid(), startsAt: `${addDays(today, clientId === ivos ? 2 : 3)}T10:00:00.000Z` }],
      })
    const { link } = (await coach.send<{ link: string }>('POST', '/api/calendar-links', { of: 'me' })).body
    const feed = (await new Caller(studio.server).bytes(new URL(link).pathname)).bytes.toString()
    expect(readCalendar(feed).map(({ title }) => title)).toEqual([NAMES.ivos])
    for (const name of [NAMES.runas, NAMES.linked, NAMES.leftAlone]) expect(feed).not.toContain(name)
  })

  it('leaves a note of every look at a client, by whatever page', async () => {
    const { caller: lead } = studio.callers.lead
    const { caller: coach } = studio.callers.coach
    const looks = async (clientId: string) =>
      (await lead.send<RecordPage>('GET', `/api/record?kind=client.seen&clientId=${clientId}`)).body.lines.length
    for (const path of ['', '/history', '/take-home', '/from-home', '/prepare', '/methods', '/booking-proposal']) {
      const one = someClient({ name: `Looked at ${path}` })
      await coach.send('POST', '/api/clients', one)
      await enterVisit(coach, one.id, { daysAgo: 7, values: FOLDS, kg: 60 })
      const before = await looks(one.id)
      expect((await coach.bytes(`/api/clients/${one.id}${path}`)).status, path).toBeLessThan(300)
      expect((await looks(one.id)) - before, path).toBe(1)
    }
    const { clientId, checkinId } = await startedCheckin(coach, someClient({ name: 'Looked at, a check-in' }))
    await coach.send('GET', `/api/checkins/${checkinId}`)
    expect(await looks(clientId)).toBe(1)
  })
})

describe('an erased client', () => {
  it.skipIf(process.env.TEST_POSTGRES)(
    'is nowhere in the data folder any more: rows, log ahead, mails, uploads, names of files',
    { timeout: 120_000 },
    async () => {
      const server = await startServer({
        filled: 'studio',
        env: { DATABASE_URL: '', NUXT_ADDRESS: 'https://studio.example' },
      })
      const lead = new Caller(server)
      await lead.signIn(LEAD)
      const one = someClient({ name: 'Quillon Zephyr', notes: 'Quillon rows at dawn.', photoConsentOn: '2026-01-10' })
      const { checkinId } = await startedCheckin(lead, one)
      await lead.send('POST', `/api/checkins/${checkinId}/events`, {
        readings: [someReading()],
        strikes: [],
      })
      await lead.send('PATCH', `/api/checkins/${checkinId}`, { note: 'Zephyr was cold.', finished: true })
      // A reminder by mail, an upload named after them, a file of their own.
      await lead.send('PUT', `/api/clients/${one.id}/reminders`, {
        id: uuid(),
        email: 'quillon@lake.example',
        visits: true,
        handIns: false,
        handInWeekday: 1,
      })
      const me = (await lead.send<Me>('GET', '/api/me')).body.staff.id
      const startsAt = new Date(Date.now() + 20 * 3_600_000).toISOString()
      await lead.send('POST', '/api/bookings', {
        clientId: one.id,
        assessorId: me,
        minutes: 30,
        place: '',
        visits: [{ id: uuid(), startsAt }],
      })
      await lead.send('PUT', '/api/studio/rules', { quietFrom: 0, quietTo: 0 })
      await lead.send('POST', '/api/mail/send', {})
      const csv = 'Date,Name,Sex,DOB,Triceps mm\n2025-03-04,Quillon Zephyr,F,1992-03-14,12\n'
      const file = await broughtFile(lead, 'zephyr 2025.csv', csv)
      await endOf(lead, await lead.send<DataJob>('POST', `/api/data/files/${file}/import`, { id: uuid(), plan: null }))
      await endOf(lead, await lead.send<DataJob>('POST', `/api/clients/${one.id}/own-file`, {}))
      const holds = (): string[] => {
        const found: string[] = []
        for (const name of readdirSync(server.dataDir, { recursive: true, encoding: 'utf8' })) {
          const path = join(server.dataDir, name)
          const isSaid = /quillon|zephyr/i
          if (isSaid.test(name)) found.push(name)
          else if (statSync(path).isFile() && isSaid.test(readFileSync(path, 'latin1'))) found.push(name)
        }
        return found
      }
      const before = holds()
      expect(before.some((name) => name.startsWith('mail/'))).toBe(true)
      expect(before.some((name) => name.startsWith('work/'))).toBe(true)
      expect(before.some((name) => name.startsWith('postgres/'))).toBe(true)
      const erased = await lead.send<Erased>('DELETE', `/api/clients/${one.id}`, { name: 'Quillon Zephyr' })
      expect([erased.status, erased.body]).toEqual([200, { backups: [], files: [] }])
      expect(holds()).toEqual([])
      expect(readdirSync(join(server.dataDir, 'work'))).toEqual([])
      // What is not about them is there, and goes on.
      expect((await lead.send('GET', '/api/clients')).status).toBe(200)
      await lead.send('POST', '/api/clients', someClient({ name: 'Somebody Else' }))
      expect((await lead.send('GET', '/api/clients')).text).toContain('Somebody Else')
      await server.remove()
    },
  )
})
