import { v7 as uuid } from 'uuid'
import { isFold } from '../../core/sites'
import { PROTOCOLS, type ProtocolId } from '../../core/protocols'
import { Caller, someReading } from './api'

const DAY_MS = 86_400_000

/** A visit to be entered through the API: every site read twice alike, in the protocol's order. */
export interface EnteredVisit {
  daysAgo: number
  protocolId?: ProtocolId
  /** Folds mm and girths cm in the protocol's order. */
  values: readonly number[]
  kg: number | null
  conditions?: Record<string, string>
  caliperId?: string | null
}

/** Enters a whole check-in and finishes it; gives its id. */
export async function enterVisit(api: Caller, clientId: string, visit: EnteredVisit): Promise<string> {
  const { daysAgo, protocolId = 'laboratory-7', values, kg, conditions = {}, caliperId = null } = visit
  const start = Date.now() - daysAgo * DAY_MS
  const at = (second: number) => new Date(start + second * 1000).toISOString()
  const id = uuid()
  const started = await api.send('POST', `/api/clients/${clientId}/checkins`, {
    id,
    protocolId,
    startedAt: at(0),
    conditions,
    caliperId,
  })
  if (started.status !== 201) throw new Error(`start: ${started.text}`)
  const { sites } = PROTOCOLS[protocolId]
  const readings = [1, 2].flatMap((round) =>
    sites.flatMap((site, i) =>
      values[i] === undefined
        ? []
        : [
            someReading({
              site,
              round,
              value: values[i],
              unit: isFold(site) ? 'mm' : 'cm',
              takenAt: at(round * 100 + i),
            }),
          ],
    ),
  )
  const weight = kg === null ? [] : [someReading({ site: 'weight', value: kg, unit: 'kg', takenAt: at(1) })]
  const stored = await api.send('POST', `/api/checkins/${id}/events`, {
    readings: [...weight, ...readings],
    strikes: [],
  })
  if (stored.status !== 200) throw new Error(`events: ${stored.text}`)
  await api.send('PATCH', `/api/checkins/${id}`, { finished: true })
  return id
}
