import type { H3Event } from 'h3'
import { analyseStudy } from '../../core/study'
import type { StudyRecord } from '../../shared/schemas/study'
import { useDatabase } from '../db/use-database'
import { studyFacts } from '../repositories/study-facts'
import { findStudy, type StoredStudy } from '../repositories/studies'
import { usePorts } from '../ports'
import { failure } from './failure'
import { idParam } from './params'
import { signedInAs } from './signed-in'

/** The study this address names. Throws 404 when there is none here. */
export async function studyAt(event: H3Event): Promise<StoredStudy> {
  const sentence = 'There is no such study.'
  const found = await findStudy(await useDatabase(), signedInAs(event), idParam(event, sentence))
  if (!found) throw failure(404, sentence, [{ field: 'id', message: sentence }])
  return found
}

/** The same, while it can still be changed. Throws 409 once it is closed. */
export async function openStudyAt(event: H3Event): Promise<StoredStudy> {
  const found = await studyAt(event)
  if (found.closedOn) throw failure(409, 'This study is closed: what it says stands.')
  return found
}

/** A study as its page shows it: what was measured stays hidden until it is closed. */
export async function studyRecord(event: H3Event): Promise<StudyRecord> {
  const stored = await studyAt(event)
  const { studioId } = signedInAs(event)
  const result = stored.closedOn ? analyseStudy(await studyFacts(await useDatabase(), studioId, stored)) : null
  return { ...stored, result }
}

/** Tells the tablets of a study that something in it has changed, and forgets what it said. */
export function tellStudy(event: H3Event, id: string): void {
  const { bus, shelf } = usePorts()
  const { studioId } = signedInAs(event)
  bus.publish(`study:${id}`, { kind: 'changed' })
  shelf.forget('studied', studioId)
  shelf.forget('noise', studioId)
}
