import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { createServer, type Socket } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { addDays, instantAt, localDay, weekdayOf } from '../../core/calendar'
import type { Store } from '../../server/db/database'
import { booking, client, clientLink, handIn, reminderChoice, staff, studio } from '../../server/db/schema'
import { isQuiet, remind, type Reminding } from '../../server/jobs/reminders'
import { folderMail, smtpMail, type MailPort, type Message } from '../../server/ports/mail'
import { memoryBus } from '../../server/ports/bus'
import { memoryShelf } from '../../server/ports/shelf'
import { listMails } from '../../server/repositories/mails'
import { readCalendar } from '../support/calendar'
import { testStore } from '../support/database'

const ZONE = 'Pacific/Auckland'
const [studioId, coachId, clientId, linkId] = [uuid(), uuid(), uuid(), uuid()]
/** Nine in the morning in Auckland. */
const NOW = new Date('2026-11-26T20:00:00Z')
const TODAY = localDay(NOW, ZONE)

let folder = ''
let store: Store
let sent: Message[] = []
const mail: MailPort = {
  real: true,
  send: (message) => Promise.resolve(void sent.push(message)),
  forget: () => Promise.resolve(),
}
const reminding = (): Reminding => ({
  store,
  ports: { bus: memoryBus(), shelf: memoryShelf(), mail },
  address: 'https://reedwater.example',
  from: 'Reedwater <gym@reedwater.example>',
})
const at = (hours: number) => new Date(+NOW + hours * 3_600_000).toISOString()

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'oak-pinch-mail-'))
  store = await testStore()
  const db = store.database
  await db.insert(studio).values({ id: studioId, name: 'Reedwater Rowing Club', timeZone: ZONE })
  await db.insert(staff).values({
    id: coachId,
    studioId,
    name: 'Runa Bexley',
    email: 'runa@reedwater.example',
    passwordHash: '',
    role: 'lead',
  })
  await db.insert(client).values({
    id: clientId,
    studioId,
    name: 'Maren Osk',
    sex: 'female',
    birthDate: '1992-03-14',
    consentOn: '2026-01-01',
  })
  await db
    .insert(clientLink)
    .values({ id: linkId, clientId, tokenHash: 'x', scope: ['weigh-ins'], expiresAt: at(1000), madeBy: coachId })
  await db.insert(reminderChoice).values({
    id: uuid(),
    clientId,
    email: 'maren@lake.example',
    visits: true,
    handIns: true,
    handInWeekday: weekdayOf(TODAY),
    setBy: coachId,
  })
})
afterAll(async () => {
  await store.close()
  rmSync(folder, { recursive: true, force: true })
})

describe('quiet hours', () => {
  it.each([
    [20, 8, 21, true],
    [20, 8, 7, true],
    [20, 8, 8, false],
    [20, 8, 19, false],
    [12, 14, 13, true],
    [12, 14, 14, false],
    [9, 9, 9, false],
  ])('from %i to %i are at %i: %s', (quietFrom, quietTo, hour, quiet) => {
    expect(isQuiet({ quietFrom, quietTo }, hour)).toBe(quiet)
  })
})

describe('reminders', () => {
  const visit = uuid()

  it('are written once: the day before a visit with its calendar entry, and on the day of the hand-in', async () => {
    await store.database
      .insert(booking)
      .values({ id: visit, studioId, clientId, assessorId: coachId, startsAt: at(24), minutes: 30, bookedBy: coachId })
    expect(await remind(reminding(), NOW)).toEqual({ written: 2, sent: 2 })
    expect(await remind(reminding(), NOW)).toEqual({ written: 0, sent: 0 })
    const [first, second] = [...sent].sort((a, b) => (a.subject < b.subject ? 1 : -1))
    expect(second).toMatchObject({ to: 'maren@lake.example', subject: 'Your visit at Reedwater Rowing Club' })
    // In the clocks of the studio: 20:00 UTC is nine in the morning of the next day.
    expect(second?.text).toContain('Saturday 28 November at 09:00')
    expect(readCalendar(second?.calendar ?? '')).toMatchObject([
      { startsAt: at(24), title: 'Visit at Reedwater Rowing Club' },
    ])
    expect(first?.subject).toBe('Your week, Reedwater Rowing Club')
    for (const { text, subject, stop } of sent) {
      // The token is random letters: a word of three of them may stand in it.
      const words = `${subject} ${text}`.replace(/https:\S+/g, '')
      expect(words).not.toMatch(/weigh|\bfat|fold|body|\bkg\b|\blb\b|percent|%|waist|girth|measur/i)
      expect(stop).toMatch(/^https:\/\/reedwater\.example\/stop#[\w-]{43}$/)
      // No figure but the day and the time of the visit.
      expect(text.replace(/https:\S+/g, '').replace('28 November at 09:00', '')).not.toMatch(/\d/)
    }
  })

  it('come again for a visit that was moved, and not for one that was cancelled', async () => {
    sent = []
    await store.database.update(booking).set({ startsAt: at(25) })
    expect((await remind(reminding(), NOW)).sent).toBe(1)
    await store.database.update(booking).set({ startsAt: at(20), state: 'cancelled' })
    expect((await remind(reminding(), NOW)).written).toBe(0)
  })

  it('keep quiet in quiet hours and go out after them', async () => {
    sent = []
    await store.database.update(booking).set({ startsAt: at(22), state: 'booked' })
    const night = new Date(instantAt(TODAY, 6 * 60, ZONE))
    expect(await remind(reminding(), night)).toEqual({ written: 0, sent: 0 })
    expect((await remind(reminding(), NOW)).sent).toBe(1)
  })

  it('ask for no week that has come in, nor where nobody is to be reminded', async () => {
    sent = []
    await store.database.insert(handIn).values({ id: uuid(), clientId, linkId, day: addDays(TODAY, 6) })
    const nextWeek = new Date(+NOW + 7 * 86_400_000)
    expect((await remind(reminding(), nextWeek)).written).toBe(0)
    expect((await remind({ ...reminding(), address: null }, NOW)).written).toBe(0)
  })

  it('are tried again a few times when they cannot be sent, and then left', async () => {
    await store.database.update(booking).set({ startsAt: at(21) })
    let tries = 0
    const broken = {
      ...reminding(),
      ports: { ...reminding().ports, mail: { ...mail, send: () => Promise.reject(new Error(`${(tries += 1)}`)) } },
    }
    for (let i = 0; i < 8; i += 1) expect((await remind(broken, NOW)).sent).toBe(0)
    expect(tries).toBe(5)
    const [failed] = await listMails(store.database, { studioId })
    expect(failed).toMatchObject({ sentAt: null, tries: 5 })
  })
})

const message: Message = {
  id: uuid(),
  from: 'Reedwater <gym@reedwater.example>',
  to: 'maren@lake.example',
  subject: 'Your visit',
  text: 'Hello Maren,\n\nuntil tomorrow.',
  stop: 'https://reedwater.example/stop#token',
  calendar: null,
}

describe('the way out', () => {
  it('without a mail server is a folder of messages', async () => {
    const box = join(folder, 'mail')
    await folderMail(box).send(message)
    const [file = ''] = readdirSync(box)
    const text = readFileSync(join(box, file), 'utf8')
    expect(text).toContain('To: maren@lake.example')
    expect(text).toContain('List-Unsubscribe: <https://reedwater.example/stop#token>')
    expect(text).toContain('until tomorrow.')
  })

  it('with one is SMTP', async () => {
    // A mail server that says yes to everything (RFC 5321), and keeps what it is told.
    let heard = ''
    const server = createServer((socket: Socket) => {
      let data = false
      socket.write('220 lake.example\r\n')
      socket.on('data', (chunk) => {
        heard += chunk.toString()
        if (data) {
          if (heard.endsWith('\r\n.\r\n')) {
            data = false
            socket.write('250 kept\r\n')
          }
          return
        }
        for (const line of chunk.toString().split('\r\n').filter(Boolean)) {
          if (line === 'DATA') {
            data = true
            socket.write('354 go on\r\n')
          } else if (line === 'QUIT') socket.end('221 bye\r\n')
          else socket.write('250 yes\r\n')
        }
      })
    })
    await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening))
    const { port } = server.address() as { port: number }
    await smtpMail(`smtp://127.0.0.1:${port}?ignoreTLS=true`).send(message)
    server.close()
    expect(heard).toContain('RCPT TO:<maren@lake.example>')
    expect(heard).toContain('Subject: Your visit')
  })
})
