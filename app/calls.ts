import type { $Fetch } from 'ofetch'
import type { Reading, Remark, Strike } from '#core/readings'
import type { SiteId } from '#core/sites'
import type {
  Habits,
  Me,
  OwnUnitsInput,
  RecoveryCodes,
  Role,
  SecondFactorBegun,
  SecondFactorState,
  SessionRecord,
  SetupInput,
  StaffMember,
  StaffRecord,
  StudioInput,
  StudioRules,
  AbsenceInput,
  AbsenceRecord,
  InviteInput,
} from '#shared/schemas/account'
import type { Caliper, CaliperCheckSent, CaliperInput, RegisteredCaliper } from '#shared/schemas/caliper'
import type { CheckinRecord, MeasuringFacts, PrepareFacts, SkipFact, StartCheckinInput } from '#shared/schemas/checkin'
import type { Client, ClientInput, ClientPage } from '#shared/schemas/client'
import type {
  ChoiceInput,
  ClientHistory,
  IntakeRecord,
  IntakesInput,
  NeutralLeaveInput,
  RecordedChoice,
  WeighInRecord,
  WeighInsInput,
  PinInput,
  PinnedStart,
  WorthwhileInput,
} from '#shared/schemas/following'
import type { Problem } from '#shared/schemas/problem'
import type { Alignment, Photo, PictureAddress, Pose } from '#shared/schemas/photo'
import type { ClientSchedule } from '#core/schedule'
import type { ScheduleInput } from '#shared/schemas/schedule'
import type { PlanInput, PlanRecord, SuspensionDecision } from '#shared/schemas/plan'
import type { Suspension } from '#core/safety'
import type { RecordCheck, RecordPage } from '#shared/schemas/record'
import type { Mailbox } from '#shared/schemas/mail'
import type { SetInput, StudioSet } from '#shared/schemas/set'
import type { DeviceKeyAnswer, LockState } from '#shared/schemas/device'
import type { PasskeyInput, PasskeyRecord, ProvedByPasskey } from '#shared/schemas/passkey'
import { askedFirst, forgetAskedFirst } from '~/asked-first'
import { askToConfirm } from '~/confirming'
import { lockPage } from '~/locking'
import { askToSignIn } from '~/signed-out'

/**
 * Everything the application asks of the server, by what it is about. Each gives what the server answers and throws a
 * `FetchError` otherwise (see `problemOf`). Lists with a kept answer on the device go through `useKeptAnswers`.
 */

type Method = 'GET' | 'POST' | 'PATCH' | 'PUT' | 'DELETE'
type Body = object | undefined

/** For calls whose caller tries again by itself; given up after half a minute, so that a lost one holds up nothing. */
const ONCE = { retry: 0, timeout: 30_000 } as const

const needsProof = (error: unknown) =>
  ((error as { data?: Partial<Problem> } | null)?.data?.confirm ?? false) &&
  (error as { status?: number }).status === 403

/**
 * What a refusal says of the device and of the session: locked, it shows nothing more until somebody opens it; ended,
 * whoever asks for a page's facts signs in first. What was being sent stays where it was typed, with the sentence.
 */
export function heedRefusal(error: unknown, method: Method): void {
  const { status } = (error ?? {}) as { status?: number }
  if (status === 423) void lockPage()
  if (status === 401 && method === 'GET') askToSignIn()
}

/** The page's own, by its plain type: what the server answers is said by each call, not by going through all its routes. */
export const fetcher = () => (globalThis as unknown as { $fetch: $Fetch }).$fetch

/** One request to the server. What is guarded there asks its person for their password first, and is then sent again. */
export async function call<Answer>(method: Method, path: string, body?: Body, more: object = {}): Promise<Answer> {
  if (method !== 'GET') forgetAskedFirst()
  const send = () => fetcher()<unknown>(path, { method, body, ...more } as object) as Promise<Answer>
  try {
    return await send()
  } catch (error) {
    heedRefusal(error, method)
    if (needsProof(error) && (await askToConfirm())) return send()
    throw error
  }
}

export const access = {
  setupNeeded: () => call<{ needed: boolean }>('GET', '/api/setup'),
  setup: (studio: SetupInput) => call<unknown>('POST', '/api/setup', studio),
  signIn: (who: { email: string; password: string; code?: string }) => call<unknown>('POST', '/api/sign-in', who),
  signOut: () => call<unknown>('POST', '/api/sign-out', undefined, ONCE),
  beginPasskey: () => call<unknown>('POST', '/api/sign-in/passkey/begin', {}),
  signInByPasskey: (proof: ProvedByPasskey) => call<unknown>('POST', '/api/sign-in/passkey', proof, ONCE),
  resetPassword: (chosen: { token: string; password: string }) => call<unknown>('POST', '/api/password-reset', chosen),
}

export const own = {
  read: () => askedFirst('/api/me', () => call<Me>('GET', '/api/me')),
  setUnits: (units: OwnUnitsInput) => call<Me>('PATCH', '/api/me', units),
  setHabits: (habits: Habits) => call<Me>('PUT', '/api/me/habits', habits),
  setPassword: (change: { old: string; password: string }) => call<unknown>('PUT', '/api/me/password', change),
  secondFactor: () => call<SecondFactorState>('GET', '/api/me/second-factor'),
  beginSecondFactor: () => call<SecondFactorBegun>('POST', '/api/me/second-factor', {}),
  confirmSecondFactor: (code: string) => call<RecoveryCodes>('POST', '/api/me/second-factor/confirm', { code }, ONCE),
  renewCodes: () => call<RecoveryCodes>('POST', '/api/me/second-factor/codes', {}, ONCE),
  removeSecondFactor: () => call<SecondFactorState>('DELETE', '/api/me/second-factor'),
  /** Proves anew who it is. */
  confirm: (proof: { password: string } | { passkey: ProvedByPasskey }) =>
    call<unknown>('POST', '/api/me/confirm', proof, ONCE),
  beginConfirm: () => call<unknown>('POST', '/api/me/confirm/begin', {}),
  passkeys: () => call<PasskeyRecord[]>('GET', '/api/me/passkeys'),
  beginPasskey: () => call<unknown>('POST', '/api/me/passkeys/begin', {}),
  addPasskey: (made: PasskeyInput) => call<PasskeyRecord[]>('POST', '/api/me/passkeys', made, ONCE),
  removePasskey: (id: string) => call<PasskeyRecord[]>('DELETE', `/api/me/passkeys/${id}`),
  setPin: (pin: string) => call<Me>('PUT', '/api/me/pin', { pin }),
  removePin: () => call<Me>('DELETE', '/api/me/pin'),
  deviceKey: () => call<DeviceKeyAnswer>('GET', '/api/me/device-key', undefined, ONCE),
  /** Says that a sign-in on a new device was theirs. */
  knowSession: (id: string) => call<Me>('POST', `/api/me/sessions/${id}/known`, {}),
  sessions: () => call<SessionRecord[]>('GET', '/api/me/sessions'),
  endSession: (id: string) => call<SessionRecord[]>('DELETE', `/api/me/sessions/${id}`),
  endOtherSessions: () => call<SessionRecord[]>('DELETE', '/api/me/sessions'),
}

export const locks = {
  read: () => call<LockState>('GET', '/api/lock', undefined, ONCE),
  lock: () => call<unknown>('POST', '/api/lock', {}, ONCE),
  open: (staffId: string, pin: string) => call<unknown>('POST', '/api/lock/open', { staffId, pin }, ONCE),
}

export const studios = {
  change: (studio: StudioInput) => call<Me>('PATCH', '/api/studio', studio),
  setRules: (rules: StudioRules) => call<Me>('PUT', '/api/studio/rules', rules),
  offerEnergy: (offered: boolean) => call<Me>('PUT', '/api/studio/energy', { offered }),
  checkRecord: (noted: string | null) =>
    call<RecordCheck>('GET', '/api/record/check', undefined, { query: noted ? { noted } : {} }),
  /** What is null is not asked by. */
  record: (by: Record<string, string | null>) =>
    call<RecordPage>('GET', '/api/record', undefined, {
      query: Object.fromEntries(Object.entries(by).filter(([, value]) => value !== null)),
    }),
}

export const staff = {
  list: () => call<StaffRecord[]>('GET', '/api/staff'),
  change: (id: string, change: { role: Role } | { active: boolean }) =>
    call<StaffRecord[]>('PATCH', `/api/staff/${id}`, change),
  invite: (person: InviteInput) => call<{ person: StaffMember; link: string }>('POST', '/api/staff/invite', person),
  removeSecondFactor: (id: string) => call<unknown>('DELETE', `/api/staff/${id}/second-factor`),
  passwordLink: (id: string) => call<{ link: string }>('POST', `/api/staff/${id}/password-link`, {}),
}

export const absences = {
  list: () => call<AbsenceRecord[]>('GET', '/api/absences'),
  add: (days: AbsenceInput) => call<AbsenceRecord[]>('POST', '/api/absences', days),
  end: (id: string) => call<AbsenceRecord[]>('DELETE', `/api/absences/${id}`),
}

export const sets = {
  keep: (set: SetInput) => call<StudioSet[]>('POST', '/api/sets', set),
  retire: (setId: string) => call<StudioSet[]>('DELETE', `/api/sets/${setId}`),
}

export const mails = {
  list: () => call<Mailbox>('GET', '/api/mail'),
  sendNow: () => call<Mailbox>('POST', '/api/mail/send', {}),
  confirmAddress: (address: string | null) => call<Mailbox>('PUT', '/api/mail/address', { address }),
  stop: (token: string) => call<{ studioName: string }>('POST', '/api/stop-mail', { token }),
}

export const calipers = {
  list: () => call<Caliper[]>('GET', '/api/calipers'),
  add: (caliper: CaliperInput) => call<Caliper[]>('POST', '/api/calipers', caliper),
  check: (id: string, check: CaliperCheckSent) => call<Caliper[]>('POST', `/api/calipers/${id}/checks`, check),
  register: () => call<RegisteredCaliper[]>('GET', '/api/calipers/register'),
  retire: (id: string, retired: boolean) => call<RegisteredCaliper[]>('PATCH', `/api/calipers/${id}`, { retired }),
  correct: (id: string, correction: { id: string; taken: boolean }) =>
    call<RegisteredCaliper[]>('POST', `/api/calipers/${id}/correction`, correction),
}

export const clients = {
  find: (q: string) => call<ClientPage>('GET', '/api/clients', undefined, { query: { q } }),
  read: (id: string) => call<Client>('GET', `/api/clients/${id}`),
  add: (client: ClientInput & { id: string }) => call<Client>('POST', '/api/clients', client),
  /** `version`: the one the change was made on; another one stored since is refused with what stands there. */
  change: (id: string, change: ClientInput & { version: number }) =>
    call<Client>('PATCH', `/api/clients/${id}`, change),
  setCoach: (id: string, coachId: string | null) => call<Client | null>('PUT', `/api/clients/${id}/coach`, { coachId }),
  archive: (id: string, archived: boolean) => call<Client>('PATCH', `/api/clients/${id}`, { archived }),
  prepare: (id: string) => call<PrepareFacts>('GET', `/api/clients/${id}/prepare`),
  /** Parsed as the JSON it is: guessing what else so long an answer might be takes as long again. */
  history: (id: string) => {
    const path = `/api/clients/${id}/history`
    return askedFirst(path, () => call<ClientHistory>('GET', path, undefined, { parseResponse: JSON.parse }))
  },
  leaveNeutral: (id: string, leave: NeutralLeaveInput) =>
    call<unknown>('POST', `/api/clients/${id}/neutral-leaves`, leave),
  setLandmark: (id: string, site: SiteId, note: string) =>
    call<Record<string, string>>('PUT', `/api/clients/${id}/landmarks/${site}`, { note }),
  choose: (id: string, choice: ChoiceInput) => call<RecordedChoice[]>('POST', `/api/clients/${id}/choices`, choice),
  addWeighIns: (id: string, given: WeighInsInput) =>
    call<WeighInRecord[]>('POST', `/api/clients/${id}/weigh-ins`, given),
  addIntakes: (id: string, given: IntakesInput) => call<IntakeRecord[]>('POST', `/api/clients/${id}/intakes`, given),
  strikeIntake: (id: string, intakeId: string) =>
    call<IntakeRecord[]>('DELETE', `/api/clients/${id}/intakes/${intakeId}`),
  strikeWeighIn: (id: string, weighInId: string) =>
    call<WeighInRecord[]>('DELETE', `/api/clients/${id}/weigh-ins/${weighInId}`),
  setSchedule: (id: string, schedule: ScheduleInput) =>
    call<ClientSchedule>('POST', `/api/clients/${id}/schedule`, schedule),
  pin: (id: string, pin: PinInput) => call<PinnedStart[]>('POST', `/api/clients/${id}/pins`, pin),
  setWorthwhile: (id: string, own: WorthwhileInput) =>
    call<ClientHistory['worthwhile']>('PUT', `/api/clients/${id}/worthwhile`, own),
  addPlan: (id: string, plan: PlanInput) => call<PlanRecord[]>('POST', `/api/clients/${id}/plans`, plan),
  decidePlan: (id: string, planId: string, decision: SuspensionDecision) =>
    call<Suspension[]>('POST', `/api/clients/${id}/plans/${planId}/decisions`, decision),
  endPlan: (id: string, planId: string) => call<PlanRecord[]>('DELETE', `/api/clients/${id}/plans/${planId}`),
}

/** What may be changed at a check-in as a whole. */
interface CheckinChange {
  note?: string
  keptWords?: string | null
  finished?: true
  protocolId?: string
  recorderId?: string | null
}

/** Facts of a check-in, as they were taken; the server checks them. */
interface EventsSent {
  readings: readonly Reading[]
  strikes: readonly Strike[]
  skips: readonly SkipFact[]
  remarks: readonly Remark[]
}

export const checkins = {
  /** Gives the one already open where there is one. `once`: the caller tries again by itself. */
  start: (clientId: string, start: StartCheckinInput, once = false) =>
    call<{ id: string }>('POST', `/api/clients/${clientId}/checkins`, start, once ? ONCE : {}),
  read: (id: string) => call<MeasuringFacts>('GET', `/api/checkins/${id}`),
  change: (id: string, change: CheckinChange) => call<CheckinRecord>('PATCH', `/api/checkins/${id}`, change),
  send: (id: string, events: EventsSent) => call<unknown>('POST', `/api/checkins/${id}/events`, events, ONCE),
  discard: (id: string) => call<unknown>('DELETE', `/api/checkins/${id}`),
  void: (id: string, reason: string) => call<ClientHistory>('POST', `/api/checkins/${id}/void`, { reason }),
}

/** Where a picture is, for a minute. `path`: its own address, such as /api/photos/<id>. */
export const pictureAddress = async (path: string) => (await call<PictureAddress>('GET', `${path}/address`)).address

/** A photograph as it is sent: its facts in the address, its bytes in the body. */
export interface PhotoSent {
  id: string
  pose: Pose
  takenAt: string
  conditions: Record<string, string>
}

export const photos = {
  add: (checkinId: string, { conditions, ...facts }: PhotoSent, picture: Blob) =>
    call<Photo>('POST', `/api/checkins/${checkinId}/photos`, picture, {
      query: { ...facts, conditions: JSON.stringify(conditions) },
      headers: { 'content-type': 'application/octet-stream' },
    }),
  align: (id: string, alignment: Alignment) => call<Photo>('PATCH', `/api/photos/${id}`, alignment),
  remove: (id: string) => call<unknown>('DELETE', `/api/photos/${id}`),
}
