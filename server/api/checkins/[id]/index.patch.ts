import { defineEventHandler } from 'h3'
import { checkinChange } from '../../../../shared/schemas/checkin'
import { useDatabase } from '../../../db/use-database'
import { readJson } from '../../../http/body'
import { publish } from '../../../http/live'
import { failure } from '../../../http/failure'
import { checkinAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { forgetErrors } from '../../../repositories/assessor-errors'
import { changeCheckin } from '../../../repositories/checkins'

function later(a: string, b: string): string {
  return a > b ? a : b
}

export default defineEventHandler(async (event) => {
  const record = await checkinAt(event)
  const { finished, note, keptWords } = await readJson(event, checkinChange)
  if (finished && record.readings.length === 0) throw failure(409, 'There is nothing in this check-in to finish.')
  const finishedAt = finished ? later(new Date().toISOString(), record.startedAt) : null
  await changeCheckin(await useDatabase(), record.id, {
    finishedAt: record.finishedAt ?? finishedAt,
    note: note ?? record.note,
    ...(keptWords === undefined ? {} : { keptWords }),
  })
  forgetErrors(signedInAs(event).studioId)
  publish(record.id, { kind: 'changed' })
  return checkinAt(event)
})
