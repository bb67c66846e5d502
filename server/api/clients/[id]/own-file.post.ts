import { format } from 'date-fns'
import { setResponseStatus } from 'h3'
import type { DataJob } from '../../../../shared/schemas/data'
import { useStore } from '../../../db/use-database'
import { makeOwnFile } from '../../../exchange/own-file'
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
  await change(actorOf(event), { kind: 'client.exported', clientId: client.id }, () => Promise.resolve())
  const name = `${plainName(client.name)}-${format(new Date(), 'yyyy-MM-dd')}.zip`
  setResponseStatus(event, 202)
  return useDataJobs().start(who, { kind: 'export', about: name }, async (progress, place) => {
    const path = await place()
    const { photos } = usePorts()
    await makeOwnFile(path, { store: await useStore(), photos, who, client, print: printApart }, progress)
    return { file: { path, name } }
  })
})
