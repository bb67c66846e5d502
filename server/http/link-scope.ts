import type { H3Event } from 'h3'
import { homePhotoBarred } from '../../core/safety'
import type { Client } from '../../shared/schemas/client'
import type { LinkScope } from '../../shared/schemas/link'
import { todayAt } from './days'
import { failure } from './failure'

/** Throws 422 where a link would take photographs from home of somebody none are taken of there. */
export function refusePhotographs(event: H3Event, client: Client, scope: readonly LinkScope[]): void {
  const barred = scope.includes('photographs') ? homePhotoBarred(client, todayAt(event)) : null
  if (barred) throw failure(422, barred, [{ field: 'scope', message: barred }])
}
