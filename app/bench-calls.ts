import type { MethodAgreement, OtherInput, OtherRecord } from '#shared/schemas/other-method'
import type { Progress, TrainingPlanInput } from '#shared/schemas/progress'
import type { DrillRound, DrillRoundInput } from '#shared/schemas/drill'
import type { StudyInput, StudyLine, StudyRecord, TurnInput } from '#shared/schemas/study'
import { call } from '~/calls'

/** What the bench asks of the server. As `~/calls`. */

export const studies = {
  list: () => call<StudyLine[]>('GET', '/api/studies'),
  make: (study: StudyInput) => call<StudyLine[]>('POST', '/api/studies', study),
  read: (id: string) => call<StudyRecord>('GET', `/api/studies/${id}`),
  addPerson: (id: string, person: { id: string; clientId: string }) =>
    call<StudyRecord>('POST', `/api/studies/${id}/people`, person),
  dropPerson: (id: string, person: string) => call<StudyRecord>('DELETE', `/api/studies/${id}/people/${person}`),
  agree: (id: string, pen: string, agreedOn: string) =>
    call<StudyRecord>('PUT', `/api/studies/${id}/pens/${pen}`, { agreedOn }),
  startTurn: (id: string, turn: TurnInput) => call<{ id: string }>('POST', `/api/studies/${id}/turns`, turn),
  close: (id: string) => call<StudyRecord>('POST', `/api/studies/${id}/close`, {}),
  leaveOut: (id: string, reason: string | null) => call<StudyRecord>('PUT', `/api/studies/${id}/left-out`, { reason }),
}

export const drills = {
  rounds: () => call<DrillRound[]>('GET', '/api/drills'),
  keep: (round: DrillRoundInput) => call<DrillRound[]>('POST', '/api/drills', round),
}

export const progress = {
  list: () => call<Progress[]>('GET', '/api/progress'),
  plan: (plan: TrainingPlanInput) => call<Progress[]>('POST', '/api/training-plans', plan),
}

export const methods = {
  list: (clientId: string) => call<OtherRecord[]>('GET', `/api/clients/${clientId}/methods`),
  add: (clientId: string, given: OtherInput) => call<OtherRecord[]>('POST', `/api/clients/${clientId}/methods`, given),
  strike: (clientId: string, id: string) => call<OtherRecord[]>('DELETE', `/api/clients/${clientId}/methods/${id}`),
  agreement: () => call<MethodAgreement[]>('GET', '/api/methods/agreement'),
}
