import { retentionRules, type RetentionDue } from '../../../shared/schemas/data'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { retentionDue, setRetention } from '../../repositories/retention'
import { change } from '../../write/use-change'

/** Sets how long things are kept. Nothing is removed by it: what falls due is shown first. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event): Promise<RetentionDue> => {
  const who = signedInAs(event)
  const rules = await readJson(event, retentionRules)
  await change(actorOf(event), { kind: 'retention.set' }, (tx) => setRetention(tx, who, rules))
  return retentionDue(await useDatabase(), who, rules)
})
