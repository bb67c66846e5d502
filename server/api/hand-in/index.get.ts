import type { ClientHome } from '../../../shared/schemas/link'
import { atLinkOf, noteOpened, ownRecord } from '../../http/at-link'
import { ownHome } from '../../http/own-home'
import { defineRoute } from '../../http/route'

/** What a client's phone shows: their own, and nothing about anybody else. */
export default defineRoute({ access: 'link' }, async (event): Promise<ClientHome> => {
  atLinkOf(event)
  await noteOpened(event)
  return ownHome(event, await ownRecord(event))
})
