import { defineEventHandler } from 'h3'
import type { ClientHome } from '../../../shared/schemas/link'
import { atLinkOf, noteOpened, ownRecord } from '../../http/at-link'
import { ownHome } from '../../http/own-home'

/** What a client's phone shows: their own, and nothing about anybody else. */
export default defineEventHandler(async (event): Promise<ClientHome> => {
  atLinkOf(event)
  await noteOpened(event)
  return ownHome(event, await ownRecord(event))
})
