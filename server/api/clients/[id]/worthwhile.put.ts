import { worthwhileInput, type ClientHistory } from '../../../../shared/schemas/following'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { clientAt } from '../../../http/params'
import { defineRoute } from '../../../http/route'
import { findWorthwhile, setWorthwhile } from '../../../repositories/worthwhile'
import { change } from '../../../write/use-change'

/** Sets the smallest changes worth acting on for one client. */
export default defineRoute(
  { access: 'coach', proof: 'second' },
  async (event): Promise<ClientHistory['worthwhile']> => {
    const client = await clientAt(event)
    const input = await readJson(event, worthwhileInput)
    await change(actorOf(event), { kind: 'worthwhile.set', clientId: client.id }, (tx) =>
      setWorthwhile(tx, client.id, input),
    )
    return findWorthwhile(await useDatabase(), client.id)
  },
)
