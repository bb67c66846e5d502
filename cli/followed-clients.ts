import type { CheckinFacts } from '../core/composition/facts'
import { protocolFor } from '../core/protocols'
import type { Reading } from '../core/readings'
import { unitOf } from '../core/readings/slips/words'
import type { ReadingRow, Refuse } from '../exchange/reading-rows'

/** A client of the table with their check-ins, oldest first. */
export interface FollowedClient {
  id: string
  checkins: { at: string; facts: CheckinFacts }[]
}

function readingOf({ site, value, method }: ReadingRow, start: number, place: number): Reading {
  return {
    id: String(place).padStart(12, '0'),
    site,
    round: 1,
    value,
    unit: unitOf(site),
    takenAt: new Date(start + place * 1000).toISOString(),
    source: 'import',
    method,
  }
}

function checkinOf(rows: readonly ReadingRow[]): FollowedClient['checkins'][number] | null {
  const [first] = rows
  if (!first) return null
  const { sex, birthDate, heightCm, at, time, protocol, assessor } = first
  return {
    at,
    facts: {
      person: { sex, birthDate, heightCm },
      protocol: protocolFor(protocol, sex, new Set(rows.map(({ site }) => site))),
      startedAt: new Date(time).toISOString(),
      day: at.slice(0, 10),
      readings: rows.map((row, i) => readingOf(row, time, i)),
      strikes: [],
      ...(assessor ? { assessorId: assessor } : {}),
    },
  }
}

/** Rows put together: a check-in is one client and instant. What contradicts the rows before it is refused by its line. */
export function clientsOf(rows: readonly ReadingRow[], refuse: Refuse): FollowedClient[] {
  const clients = new Map<string, { first: ReadingRow; visits: Map<number, ReadingRow[]> }>()
  for (const row of rows) {
    const own = clients.get(row.client) ?? { first: row, visits: new Map<number, ReadingRow[]>() }
    clients.set(row.client, own)
    if (row.sex !== own.first.sex || row.birthDate !== own.first.birthDate) {
      refuse(row.line, `sex or birth_date differs from line ${own.first.line}`)
      continue
    }
    const visit = own.visits.get(row.time) ?? []
    own.visits.set(row.time, visit)
    if (visit[0] && (visit[0].protocol !== row.protocol || visit[0].assessor !== row.assessor))
      refuse(row.line, `set or assessor differs from line ${visit[0].line} of the same check-in`)
    else visit.push(row)
  }
  return [...clients].map(([id, { visits }]) => ({
    id,
    checkins: [...visits].sort(([a], [b]) => a - b).flatMap(([, own]) => checkinOf(own) ?? []),
  }))
}
