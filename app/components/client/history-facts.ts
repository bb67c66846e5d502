import { composeHistory, type CheckinFacts, type ComposedCheckin } from '#core/composition'
import { findProtocol, PROTOCOLS } from '#core/sites'
import type { CheckinRecord, ClientHistory } from '#shared/schemas/checkin'

/** A check-in's facts with what the client page says about the visit itself. */
export interface HistoryFacts extends CheckinFacts {
  id: string
  finishedAt: string | null
  note: string
}

function factsOf(record: CheckinRecord, client: ClientHistory['client']): HistoryFacts {
  return {
    id: record.id,
    finishedAt: record.finishedAt,
    note: record.note,
    person: client,
    protocol: findProtocol(record.protocolId) ?? PROTOCOLS['laboratory-7'],
    startedAt: record.startedAt,
    readings: record.readings,
    strikes: record.strikes,
  }
}

/** The client's check-ins composed, oldest first. */
export function composedHistory({ client, checkins }: ClientHistory): ComposedCheckin<HistoryFacts>[] {
  return composeHistory(checkins.map((record) => factsOf(record, client)))
}
