import { massToKg, lengthToCm } from '../../core/units'
import { girthOf, HOME_GIRTHS, homeGirthChanges, weekOf, type HomeWeek } from '../../core/home'
import type { GirthSiteId } from '../../core/sites'
import { homePhotoBarred } from '../../core/safety'
import type { WeighIn } from '../../core/trend'
import { addDays, type Day } from '../../core/calendar'
import { isNeutral } from '../../shared/neutral'
import type { Client } from '../../shared/schemas/client'
import type { WeighInRecord } from '../../shared/schemas/following'
import type { ClientHome, FromHome, HandInRecord, HomeGirth } from '../../shared/schemas/link'
import type { Queryable } from '../db/database'
import { comingBookings } from './bookings'
import { challengesOf } from './challenges'
import { listLinks, type AtLink } from './client-links'
import { listHandIns, listLines } from './hand-ins'
import { findReminders } from './reminders'
import type { InStudio } from './staff'
import { countedScope, safetyFactsOf } from './suspensions'
import { listWeighIns } from './weigh-ins'

/** Readings of a week as girths in cm, by place. */
function girthsOf(readings: readonly HomeGirth[]): HomeWeek['girths'] {
  const byPlace = new Map<GirthSiteId, number[]>()
  for (const { site, value, unit } of readings)
    byPlace.set(site, [...(byPlace.get(site) ?? []), lengthToCm(value, unit)])
  return Object.fromEntries([...byPlace].map(([site, cm]) => [site, girthOf(cm) ?? NaN]))
}

const inKg = (records: readonly WeighInRecord[]): WeighIn[] =>
  records.map(({ day, value, unit }) => ({ day, weightKg: massToKg(value, unit) }))

/** What is handed in by a client, with what each week comes to: for their coach. */
export async function findFromHome(db: Queryable, who: InStudio, client: Client, today: Day): Promise<FromHome> {
  const weeks = await listHandIns(db, client.id)
  const weighIns = inKg(await listWeighIns(db, client.id))
  const inOrder = [...weeks].reverse().map(({ day, girths }) => ({ day, girths: girthsOf(girths) }))
  const facts = await safetyFactsOf(db, who, client.id, today)
  const links = await listLinks(db, client.id)
  return {
    links: links.map(({ reasonFor, ...link }) => ({
      ...link,
      counted: facts ? countedScope(facts, link.scope, reasonFor) : [],
    })),
    weeks: weeks.map((week, i) => ({
      ...week,
      weight: weekOf(weighIns, week.day),
      changes: homeGirthChanges(inOrder.slice(0, weeks.length - i)),
    })),
    lines: await listLines(db, client.id),
    reminders: await findReminders(db, client.id),
  }
}

/** Days of weigh-ins a phone shows. */
const DAYS_SHOWN = 28
/** And weeks. */
const WEEKS_SHOWN = 12

/** A week as its client sees it; without figures where none are to be shown. */
function shownWeek({ girths, seenAt: _, ...week }: HandInRecord, neutral: boolean): ClientHome['weeks'][number] {
  return { ...week, girths: girths.map((one) => ({ ...one, value: neutral ? null : one.value })) }
}

/** What a client's phone shows. In neutral mode no figure leaves the server. */
export async function findClientHome(
  db: Queryable,
  { clientId, studioId, scope, sites }: AtLink,
  client: Client,
  about: {
    studioName: string
    units: ClientHome['units']
    today: Day
    timeZone: string
    expiresAt: string
    takeHome: boolean
  },
): Promise<ClientHome> {
  const { today, timeZone, takeHome, ...rest } = about
  const neutral = isNeutral(client, today)
  const reminders = await findReminders(db, clientId)
  const weighIns = inKg(await listWeighIns(db, clientId)).filter(({ day }) => day > addDays(today, -DAYS_SHOWN))
  const who: InStudio = { studioId }
  const [visit] = await comingBookings(db, who, clientId, new Date().toISOString(), timeZone)
  return {
    ...rest,
    firstName: client.name.split(' ')[0] ?? client.name,
    neutral,
    // Without consent to photographs, and at an age where none are taken at home, none are asked for.
    scope: scope.filter(
      (one) => one !== 'photographs' || (client.photoConsentOn !== null && homePhotoBarred(client, today) === null),
    ),
    today,
    weekday: reminders.handInWeekday,
    sites: sites.length > 0 ? sites : [...HOME_GIRTHS],
    weighIns: weighIns.map(({ day, weightKg }) => ({ day, kg: neutral ? null : weightKg })),
    weeks: (await listHandIns(db, clientId)).slice(0, WEEKS_SHOWN).map((week) => shownWeek(week, neutral)),
    lines: (await listLines(db, clientId)).map(({ id: _, ...line }) => line),
    takeHome: takeHome && scope.includes('take-home'),
    nextVisit: visit?.startsAt ?? null,
    challenges: await challengesOf(db, clientId),
    reminders: { on: reminders.email !== null && (reminders.visits || reminders.handIns) },
  }
}
