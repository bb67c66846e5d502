import { addHours, addMinutes, subDays } from 'date-fns'
import { v7 as uuid } from 'uuid'
import { addDays, localDay, sayInZone, weekdayOf } from '../../core/calendar'
import { calendarOf } from '../../exchange/calendar'
import type { Store } from '../db/database'
import { errorFacts, log } from '../http/log'
import { hashOf, randomToken } from '../http/tokens'
import type { Ports } from '../ports'
import { clientsWithLink } from '../repositories/client-links'
import { listHandIns } from '../repositories/hand-ins'
import {
  addMail,
  noteMail,
  remindedClients,
  studiosForMail,
  visitsBetween,
  waitingMails,
  type MailVisit,
} from '../repositories/mails'
import { changeIn } from '../write/change'

/** Where the reminders of a process stand. */
export interface Reminding {
  store: Pick<Store, 'database' | 'settle'>
  ports: Pick<Ports, 'bus' | 'shelf' | 'mail'>
  /** The configured scheme and host; null: what a lead of each studio has confirmed. */
  address: string | null
  from: string
}

type Studio = Awaited<ReturnType<typeof studiosForMail>>[number]

/** A visit is reminded of this long before it, hours; and no later than that. */
const VISIT_HOURS = { from: 26, to: 2 } as const
/** A week that came in so lately is not asked for again, days. */
const HANDED_IN_DAYS = 5

/** Whether no mail leaves at an hour of the studio's clocks. The same hour twice: never quiet. */
export function isQuiet({ quietFrom, quietTo }: Pick<Studio, 'quietFrom' | 'quietTo'>, hour: number): boolean {
  if (quietFrom === quietTo) return false
  return quietFrom < quietTo ? hour >= quietFrom && hour < quietTo : hour >= quietFrom || hour < quietTo
}

const first = (name: string) => name.split(' ')[0] ?? name

function visitWords(studio: Studio, name: string, { startsAt, assessor }: MailVisit): string {
  const at = sayInZone(startsAt, studio.timeZone, "EEEE d MMMM 'at' HH:mm")
  return `Hello ${first(name)},\n\nyour visit is on ${at}${assessor ? `, with ${assessor}` : ''}. The entry for your calendar is attached.\n\n${studio.name}`
}

const handInWords = (studio: Studio, name: string) =>
  `Hello ${first(name)},\n\ntoday is the day to hand in the week, if it suits you. Your own link is on your phone.\n\n${studio.name}`

/** What links of a studio's mails begin with; null: they carry none. */
const addressOf = ({ address }: Reminding, studio: Studio) => address ?? studio.address

/**
 * Writes the mails that are due in a studio now. Without an address there are none: they could not be stopped.
 * @returns how many were new
 */
async function write(reminding: Reminding, studio: Studio, now: Date): Promise<number> {
  const { store, ports } = reminding
  const address = addressOf(reminding, studio)
  if (address === null) return 0
  const db = store.database
  const people = await remindedClients(db, studio.id)
  if (people.length === 0) return 0
  const today = localDay(now, studio.timeZone)
  const linked = await clientsWithLink(db, now.toISOString())
  const visits = await visitsBetween(
    db,
    studio.id,
    addHours(now, VISIT_HOURS.to).toISOString(),
    addHours(now, VISIT_HOURS.from).toISOString(),
  )
  const due = people.flatMap((one) => [
    ...visits
      .filter(({ clientId }) => one.visits && clientId === one.clientId)
      .map((visit) => ({
        ...one,
        // Moved, it is another visit to be reminded of.
        about: `visit ${visit.id} ${visit.startsAt}`,
        subject: `Your visit at ${studio.name}`,
        words: visitWords(studio, one.name, visit),
      })),
    ...(one.handIns && linked.has(one.clientId) && weekdayOf(today) === one.weekday
      ? [
          {
            ...one,
            about: `hand-in ${one.clientId} ${today}`,
            subject: `Your week, ${studio.name}`,
            words: handInWords(studio, one.name),
          },
        ]
      : []),
  ])
  let written = 0
  for (const { clientId, email, about, subject, words } of due) {
    if (about.startsWith('hand-in')) {
      const [newest] = await listHandIns(db, clientId)
      if (newest && newest.day > addDays(today, -HANDED_IN_DAYS)) continue
    }
    const token = randomToken()
    const stop = `${address}/stop#${token}`
    const id = uuid()
    const row = {
      id,
      studioId: studio.id,
      clientId,
      toAddress: email,
      subject,
      words: `${words}\n\nStop these mails with one press: ${stop}`,
      about,
      stopTokenHash: hashOf(token),
    }
    const actor = { kind: 'system', studioId: studio.id } as const
    await changeIn({ store, ports }, actor, { kind: 'mail.made', subjectId: id }, async (tx, unit) => {
      if (await addMail(tx, row)) written += 1
      else unit.unchanged()
    })
  }
  return written
}

/** The calendar entry that goes with a reminder of a visit. */
async function calendarFor(reminding: Reminding, studio: Studio, about: string, now: Date): Promise<string | null> {
  const [kind, id] = about.split(' ')
  if (kind !== 'visit') return null
  const visits = await visitsBetween(
    reminding.store.database,
    studio.id,
    subDays(now, 1).toISOString(),
    addMinutes(now, 60 * 72).toISOString(),
  )
  const visit = visits.find((one) => one.id === id)
  if (!visit) return null
  const entry = { ...visit, title: `Visit at ${studio.name}`, cancelled: false, alarmMinutes: 120 }
  return calendarOf(studio.name, [entry], new URL(addressOf(reminding, studio) ?? 'http://localhost').hostname)
}

/** Sends what waits. One that fails is tried again later, a few times. @returns how many left */
async function send(reminding: Reminding, studio: Studio, now: Date, quiet = false): Promise<number> {
  const { store, ports, from } = reminding
  let sent = 0
  for (const one of await waitingMails(store.database, studio.id, quiet)) {
    const stop = /https?:\/\/\S+\/stop#\S+$/.exec(one.words)?.[0] ?? null
    const calendar = await calendarFor(reminding, studio, one.about, now)
    const message = { id: one.id, from, to: one.toAddress, subject: one.subject, text: one.words, stop, calendar }
    const left = await ports.mail.send(message).then(
      () => true,
      (error: unknown) => {
        log.warn({ what: 'mail not sent', mail: one.id, ...errorFacts(error) })
        return false
      },
    )
    const actor = { kind: 'system', studioId: studio.id } as const
    await changeIn({ store, ports }, actor, { kind: 'mail.sent', subjectId: one.id }, (tx) =>
      noteMail(tx, one.id, left),
    )
    if (left) sent += 1
  }
  return sent
}

/** Writes and sends what is due in every studio; nothing but what is about somebody's own account leaves in its quiet hours. */
export async function remind(reminding: Reminding, now = new Date()): Promise<{ written: number; sent: number }> {
  const done = { written: 0, sent: 0 }
  for (const studio of await studiosForMail(reminding.store.database)) {
    if (isQuiet(studio, Number(sayInZone(now, studio.timeZone, 'H')))) {
      done.sent += await send(reminding, studio, now, true)
      continue
    }
    done.written += await write(reminding, studio, now)
    done.sent += await send(reminding, studio, now)
  }
  return done
}
