import type { H3Event } from 'h3'
import type { EventsInput } from '../../shared/schemas/checkin'
import type { CheckinHead } from '../repositories/checkins'
import { listStaff, type AtWork } from '../repositories/staff'
import { useDatabase } from '../db/use-database'
import { failure } from './failure'
import { signedInAs } from './signed-in'

/**
 * After the end of a check-in a recorder's device may still deliver what was taken before it, and nothing else: no
 * strikes, no reading of a later moment. Throws 409 otherwise.
 */
export function refuseAfterEnd({ role }: AtWork, { finishedAt }: CheckinHead, events: EventsInput): void {
  if (role !== 'recorder' || finishedAt === null) return
  const end = Date.parse(finishedAt)
  const moments = [
    ...events.readings.map(({ takenAt }) => takenAt),
    ...[...events.skips, ...events.remarks].map(({ at }) => at),
  ]
  if (events.strikes.length > 0 || moments.some((at) => Date.parse(at) > end))
    throw failure(409, 'This check-in is finished. Please ask the coach to change it.')
}

/** Throws 422 unless somebody called to a sheet works here. */
export async function refuseUnknownRecorder(event: H3Event, recorderId: string): Promise<void> {
  const people = await listStaff(await useDatabase(), signedInAs(event))
  const message = 'This person does not work here.'
  if (!people.some(({ id }) => id === recorderId)) throw failure(422, message, [{ field: 'recorderId', message }])
}
