import { v7 as uuid } from 'uuid'
import { startServer } from '../../scripts/lib/server-process.mjs'
import type { StaffMember } from '../../shared/schemas/account'
import { Caller, LEAD, someClient, startedCheckin, type Server } from './api'
import { enterVisit } from './visits'

const PIN = '471926'
const password = 'the-other-oar-holds'
const person = (name: string, role: string) => ({
  name,
  role,
  password,
  email: `${name.split(' ')[0]}@reedwater.example`,
})

/** Names that no answer may carry to people they are not for. */
export const NAMES = {
  ivos: 'Canary Alder',
  runas: 'Canary Birch',
  linked: 'Canary Cedar',
  leftAlone: 'Canary Dogwood',
} as const

export type Who = 'lead' | 'coach' | 'recorder' | 'client' | 'stranger'

/** A studio with everyone in it: a lead, a coach kept to their own clients, a recorder called to one sheet, a client's phone. */
export interface Everyone {
  server: Server
  callers: Record<Who, { caller: Caller; enter: () => Promise<unknown> }>
  /** Ids by the part of a path they stand after. */
  known: Record<string, string[]>
}

let asked = 0
/** The address of a visitor behind a proxy, another one each time. */
export function fromElsewhere(): Record<string, string> {
  asked += 1
  return { 'x-forwarded-for': `10.${asked >> 16}.${(asked >> 8) & 255}.${asked & 255}` }
}

/** Starts a server with that studio; proof of identity stays fresh for hours. */
export async function everyone(): Promise<Everyone> {
  // Behind a proxy every request may come from elsewhere, so guesses counted by address do not slow the test down.
  const server = await startServer({
    filled: 'studio',
    env: { CONFIRM_AFTER_MINUTES: '600', NUXT_TRUSTED_PROXIES: '127.0.0.1' },
  })
  const lead = new Caller(server)
  await lead.signIn(LEAD)
  const people = [person('Ivo Tarn', 'coach'), person('Nils Reed', 'recorder'), person('Spare Hand', 'coach')]
  const staff: StaffMember[] = []
  for (const one of people) staff.push((await lead.addPerson(one)).body)
  const [ivo, nils, spare] = staff.map(({ id }) => id)
  const me = (await lead.send<{ staff: StaffMember }>('GET', '/api/me')).body.staff.id
  const client = async (name: string, coachId: string) => {
    const made = someClient({ name, notes: `${name} has a note.`, photoConsentOn: '2026-01-10' })
    await lead.send('POST', '/api/clients', made)
    await lead.send('PUT', `/api/clients/${made.id}/coach`, { coachId })
    return made
  }
  const ivos = await client(NAMES.ivos, ivo ?? '')
  const runas = await client(NAMES.runas, me)
  const linked = await client(NAMES.linked, me)
  const alone = await client(NAMES.leftAlone, me)
  const visits: string[] = []
  for (const one of [ivos, runas, linked, alone])
    visits.push(await enterVisit(lead, one.id, { daysAgo: 7, values: [18, 13, 9, 11, 14, 21, 26], kg: 70 }))
  const { checkinId } = await startedCheckin(lead, ivos, { recorderId: nils })
  const { body } = await lead.send<{ link: string }>('POST', `/api/clients/${linked.id}/links`, {
    scope: ['weigh-ins', 'girths', 'photographs', 'take-home'],
    days: 30,
  })
  await lead.send('PUT', '/api/studio/rules', { coachesSee: 'own' })
  const token = body.link.split('#')[1] ?? ''
  const phone = new Caller(server)
  const [coach, recorder] = [new Caller(server), new Caller(server)]
  const signIn = (caller: Caller, who: { email: string; password: string }) => () =>
    caller.send('POST', '/api/sign-in', { email: who.email, password: who.password }, undefined, fromElsewhere())
  const callers: Everyone['callers'] = {
    lead: { caller: lead, enter: signIn(lead, LEAD) },
    coach: { caller: coach, enter: signIn(coach, person('Ivo Tarn', 'coach')) },
    recorder: { caller: recorder, enter: signIn(recorder, person('Nils Reed', 'recorder')) },
    client: { caller: phone, enter: () => phone.send('POST', '/api/link/pin', { token, pin: PIN }) },
    stranger: { caller: new Caller(server), enter: () => Promise.resolve() },
  }
  for (const { enter } of Object.values(callers)) await enter()
  const clients = [ivos.id, runas.id, linked.id, alone.id]
  return { server, callers, known: { clients, checkins: [checkinId, ...visits], staff: [spare ?? uuid()] } }
}
