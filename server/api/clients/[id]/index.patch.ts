import { defineEventHandler } from 'h3'
import { clientChange } from '../../../../shared/schemas/client'
import { useDatabase } from '../../../db/use-database'
import { readJson } from '../../../http/body'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { changeClient } from '../../../repositories/clients'

export default defineEventHandler(async (event) => {
  const { id } = await clientAt(event)
  const change = await readJson(event, clientChange)
  return changeClient(await useDatabase(), signedInAs(event), id, change)
})
