import { findProtocol } from '../../../../core/protocols'
import type { MeasureId } from '../../../../core/readings'
import { isInSet, siteInSet, type SiteId } from '../../../../core/sites'
import { eventsInput, type EventsInput } from '../../../../shared/schemas/checkin'
import type { FieldProblem } from '../../../../shared/schemas/problem'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { checkinHeadAt } from '../../../http/params'
import { refuseAfterEnd } from '../../../http/recorder'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import type { CheckinHead } from '../../../repositories/checkins'
import { EventsRefused, storeEvents } from '../../../repositories/events'
import { change } from '../../../write/use-change'

/** Events as the set of this check-in names its sites: a device that was away may say older names. */
function asInSet<One extends { site: MeasureId }>(sites: readonly SiteId[], all: readonly One[]): One[] {
  return all.map((one) =>
    one.site === 'weight' || one.site === 'height' ? one : { ...one, site: siteInSet(sites, one.site) },
  )
}

function outsideProtocol(record: CheckinHead, events: EventsInput): FieldProblem[] {
  const own = findProtocol(record.protocolId)?.sites ?? []
  const allowed = { has: (site: MeasureId) => site === 'weight' || site === 'height' || isInSet(own, site) }
  const sites = [
    ...events.readings.map(({ site }, i) => ({ site, field: `readings.${i}.site` })),
    ...events.skips.map(({ site }, i) => ({ site, field: `skips.${i}.site` })),
  ]
  return sites
    .filter(({ site }) => !allowed.has(site))
    .map(({ field }) => ({ field, message: 'This site is not part of the protocol of this check-in.' }))
}

/** Stores readings and strikes; the answer names every one that is now safe. */
export default defineRoute({ access: 'recorder', proof: 'second' }, async (event) => {
  const record = await checkinHeadAt(event)
  const given = await readJson(event, eventsInput)
  const own = findProtocol(record.protocolId)?.sites ?? []
  const events = { ...given, readings: asInSet(own, given.readings), skips: asInSet(own, given.skips) }
  refuseAfterEnd(signedInAs(event), record, events)
  const outside = outsideProtocol(record, events)
  if (outside[0]) throw failure(422, outside[0].message, outside)
  try {
    const { id: checkinId, clientId } = record
    await change(actorOf(event), { kind: 'checkin.facts', clientId, checkinId }, async (tx, unit) => {
      if ((await storeEvents(tx, signedInAs(event), checkinId, events)) === 0) unit.unchanged()
      else unit.publish({ kind: 'events', events })
    })
  } catch (error) {
    if (error instanceof EventsRefused) throw failure(409, error.message)
    throw error
  }
  return {
    stored: [
      ...events.readings.map(({ id }) => id),
      ...events.strikes.map(({ readingId }) => readingId),
      ...events.skips.map(({ id }) => id),
      ...events.remarks.map(({ id }) => id),
    ],
  }
})
