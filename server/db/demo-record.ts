import { v7 as uuid } from 'uuid'
import type { RecordedKind } from '../../shared/change-words'
import type { Transaction } from './database'
import { audit, checkin, client, studio } from './schema'

/** The record of the demo: what its clients and check-ins say was done, by whom and when. */
export async function seedDemoRecord(tx: Transaction): Promise<void> {
  const [home] = await tx.select({ id: studio.id }).from(studio)
  const people = await tx.select({ id: client.id, at: client.createdAt }).from(client)
  const visits = await tx.select().from(checkin)
  if (!home) return
  const line = (
    at: string,
    kind: RecordedKind,
    staffId: string,
    clientId: string,
    checkinId: string | null = null,
  ) => ({
    id: uuid({ msecs: Date.parse(at) }),
    studioId: home.id,
    at,
    actor: 'staff' as const,
    staffId,
    kind,
    clientId,
    checkinId,
  })
  const firstBy = (clientId: string) => visits.find((visit) => visit.clientId === clientId)?.startedBy ?? ''
  const lines = [
    ...people.flatMap(({ id, at }) => (firstBy(id) ? [line(at, 'client.added', firstBy(id), id)] : [])),
    ...visits.flatMap(({ id, clientId, startedBy, startedAt, finishedAt }) => [
      line(startedAt, 'checkin.started', startedBy, clientId, id),
      ...(finishedAt ? [line(finishedAt, 'checkin.finished', startedBy, clientId, id)] : []),
    ]),
  ]
  await tx.insert(audit).values(lines)
}
