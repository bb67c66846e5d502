import type { Reading, Remark, Strike } from '#core/readings'
import type { EventsInput, SkipFact } from '#shared/schemas/checkin'
import type { Waiting } from '~/storage/outbox-db'

/** The facts of a session, from wherever they came: a union, so that order and repetition never matter. */
export interface SessionFacts {
  readings: Reading[]
  strikes: Strike[]
  skips: SkipFact[]
  remarks: Remark[]
}

export const NO_FACTS: SessionFacts = { readings: [], strikes: [], skips: [], remarks: [] }

/** All facts of several sources together; core counts each id once. */
export function joinFacts(...sources: Partial<SessionFacts>[]): SessionFacts {
  return {
    readings: sources.flatMap(({ readings }) => readings ?? []),
    strikes: sources.flatMap(({ strikes }) => strikes ?? []),
    skips: sources.flatMap(({ skips }) => skips ?? []),
    remarks: sources.flatMap(({ remarks }) => remarks ?? []),
  }
}

/** Facts on their way to the server. */
export function waitingFacts(
  waiting: readonly Pick<Waiting, 'reading' | 'strike' | 'skip' | 'remark'>[],
): SessionFacts {
  return {
    readings: waiting.flatMap(({ reading }) => reading ?? []),
    strikes: waiting.flatMap(({ strike }) => strike ?? []),
    skips: waiting.flatMap(({ skip }) => skip ?? []),
    remarks: waiting.flatMap(({ remark }) => remark ?? []),
  }
}

/** Facts another screen has sent. */
export function heardFacts(events: EventsInput): SessionFacts {
  return events as SessionFacts
}
