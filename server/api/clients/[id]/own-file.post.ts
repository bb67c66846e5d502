import { format } from 'date-fns'
import { setResponseStatus } from 'h3'
import { v7 as uuid } from 'uuid'
import { isNeutral } from '../../../../shared/neutral'
import { ownFileInput, type DataJob } from '../../../../shared/schemas/data'
import { useStore } from '../../../db/use-database'
import { makeOwnFile } from '../../../exchange/own-file'
import { readJson } from '../../../http/body'
import { todayAt } from '../../../http/days'
import { addNeutralLeave } from '../../../repositories/neutral-leaves'
import { actorOf } from '../../../http/actor'
import { plainName } from '../../../http/file-name'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { useDataJobs } from '../../../jobs/use-data'
import { usePorts } from '../../../ports'
import { printApart } from '../../../take-home/print-apart'
import { change } from '../../../write/use-change'

/** Everything about one client, as a file of their own to hand over: rows, pictures, tables, a page. */
export default defineRoute({ access: 'lead', proof: 'fresh', looked: 'client' }, async (event): Promise<DataJob> => {
  const who = signedInAs(event)
  const client = await clientAt(event)
  const { figuresReason: reason } = await readJson(event, ownFileInput)
  const isBare = isNeutral(client, todayAt(event)) && reason === ''
  await change(actorOf(event), { kind: 'client.exported', clientId: client.id }, async (tx) => {
    if (reason !== '') await addNeutralLeave(tx, who, client.id, { id: uuid(), reason })
  })
  const name = `${plainName(client.name)}-${format(new Date(), 'yyyy-MM-dd')}.zip`
  setResponseStatus(event, 202)
  return useDataJobs().start(who, { kind: 'export', about: name }, async (progress, place) => {
    const path = await place()
    const { photos } = usePorts()
    await makeOwnFile(path, { store: await useStore(), photos, who, client, print: printApart, bare: isBare }, progress)
    return { file: { path, name } }
  })
})
