import { studioRules, type Me } from '../../../shared/schemas/account'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { changeStudio, findMe } from '../../repositories/staff'
import { change } from '../../write/use-change'

/** Sets a studio's rules: whose clients coaches see, when no mail leaves. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event): Promise<Me | null> => {
  const who = signedInAs(event)
  const rules = await readJson(event, studioRules)
  await change(actorOf(event), { kind: 'studio.changed' }, (tx) => changeStudio(tx, who, rules))
  return findMe(await useDatabase(), who)
})
