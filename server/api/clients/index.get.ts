import { defineEventHandler, getQuery } from 'h3'
import { clientQuery } from '../../../shared/schemas/client'
import { useDatabase } from '../../db/use-database'
import { parsed } from '../../http/body'
import { signedInAs } from '../../http/signed-in'
import { listClients } from '../../repositories/clients'

export default defineEventHandler(async (event) => {
  const { q, archived, after } = parsed(clientQuery, getQuery(event))
  return listClients(await useDatabase(), signedInAs(event), { q, archived: archived === 'true', after })
})
