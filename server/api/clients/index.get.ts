import { getQuery } from 'h3'
import { clientQuery, type ClientPage } from '../../../shared/schemas/client'
import { useDatabase } from '../../db/use-database'
import { parsed } from '../../http/body'
import { todayAt } from '../../http/days'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { listClients } from '../../repositories/client-list'

/** Clients of the studio, a page at a time. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<ClientPage> => {
  const { archived, descending, ...query } = parsed(clientQuery, getQuery(event))
  const asked = { ...query, archived: archived === 'true', descending: descending === 'true' }
  return listClients(await useDatabase(), signedInAs(event), asked, todayAt(event))
})
