import { formatISO9075 } from 'date-fns'
import { TZDate } from '@date-fns/tz'
import type { H3Event } from 'h3'
import { v7 as uuid } from 'uuid'
import { useDatabase } from '../db/use-database'
import { remindNow } from '../jobs/remind-now'
import { pinWorks } from '../repositories/locks'
import { addMail } from '../repositories/mails'
import { endSessions, findSession } from '../repositories/sessions'
import { findPerson } from '../repositories/staff'
import { change } from '../write/use-change'
import { mailAddress } from './address'
import { logOf } from './log'
import { deviceOf, openSession, sealSession } from './session-cookie'

type Person = NonNullable<Awaited<ReturnType<typeof findPerson>>>

function strangeWords({ name, timeZone, studioName, address }: Person, device: string, now: Date): string {
  const [first = name] = name.split(' ')
  const at = formatISO9075(new TZDate(now, timeZone)).slice(0, 16)
  const own = mailAddress(address)
  const where = own ? `: ${own}/studio/account` : ', under Studio, Account'
  return `Hello ${first},\n\nsomebody signed in to your account at ${studioName} on a device you had not signed in on before: ${device}, ${at} (${timeZone}).\n\nIf that was you, there is nothing to do. If not, sign in, end that session and choose another password${where}.\n\n${studioName}`
}

/**
 * Signs a person in who has proved who they are: a session, its cookies, the device remembered. A sign-in on a device that
 * is new to them is reported by mail and on their other devices.
 */
export async function beginSession(event: H3Event, who: { staffId: string; studioId: string }): Promise<void> {
  const { staffId, studioId } = who
  const db = await useDatabase()
  const device = await deviceOf(event, db, who)
  // The session that was here before ends, also where the device was locked.
  const { user } = await getUserSession(event)
  const before = user?.sessionId ? await findSession(db, user.sessionId) : null
  const kind = device.strange ? 'session.strange' : 'session.started'
  const fresh = await change({ kind: 'staff', staffId, studioId }, { kind }, async (tx, unit) => {
    if (before) unit.endSessions(await endSessions(tx, before.staffId, { only: before.sessionId }))
    const begun = await openSession(event, tx, staffId, device)
    await pinWorks(tx, staffId)
    const person = device.strange ? await findPerson(tx, staffId) : null
    if (person)
      await addMail(tx, {
        id: uuid(),
        studioId,
        toAddress: person.email,
        subject: `A sign-in on a new device, ${person.studioName}`,
        words: strangeWords(person, begun.words, new Date()),
        about: `sign-in ${begun.id}`,
      })
    return begun
  })
  logOf(event).info({ what: 'signed in', staff: staffId, strange: device.strange })
  await sealSession(event, fresh)
  if (device.strange) void remindNow()
}
