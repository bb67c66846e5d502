import { defineEventHandler } from 'h3'
import { studioInput } from '../../shared/schemas/account'
import { useDatabase } from '../db/use-database'
import { actorOf } from '../http/actor'
import { readJson } from '../http/body'
import { signedInAsLead } from '../http/signed-in'
import { changeStudio, findMe } from '../repositories/staff'
import { change } from '../write/use-change'

export default defineEventHandler(async (event) => {
  const who = signedInAsLead(event)
  const input = await readJson(event, studioInput)
  await change(actorOf(event), { kind: 'studio.changed' }, (tx) => changeStudio(tx, who, input))
  return findMe(await useDatabase(), who)
})
