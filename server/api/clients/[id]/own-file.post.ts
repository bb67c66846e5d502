import { createWriteStream } from 'node:fs'
import { readFile } from 'node:fs/promises'
import { format } from 'date-fns'
import { defineEventHandler, setResponseStatus } from 'h3'
import { localDay } from '../../../../core/calendar'
import { unitsOf } from '../../../../shared/units-of'
import { isNeutral } from '../../../../shared/neutral'
import type { DataJob } from '../../../../shared/schemas/data'
import { useDatabase, useStore } from '../../../db/use-database'
import { writeExport } from '../../../exchange/exports'
import { writeOwnFile, type Enclosed } from '../../../exchange/one-client'
import { actorOf } from '../../../http/actor'
import { failure } from '../../../http/failure'
import { plainName } from '../../../http/file-name'
import { clientAt } from '../../../http/params'
import { signedInAsLead } from '../../../http/signed-in'
import { useDataJobs } from '../../../jobs/use-data'
import { usePorts } from '../../../ports'
import { findHistory } from '../../../repositories/history'
import { listSets } from '../../../repositories/sets'
import { findMe } from '../../../repositories/staff'
import { printApart } from '../../../take-home/print-apart'
import { change } from '../../../write/use-change'

/** Everything about one client, as a file of their own to hand over: rows, pictures, tables, a page. */
export default defineEventHandler(async (event): Promise<DataJob> => {
  const who = signedInAsLead(event)
  const client = await clientAt(event)
  const db = await useDatabase()
  const me = await findMe(db, who)
  if (!me) throw failure(401, 'Please sign in.')
  await change(actorOf(event), { kind: 'client.exported', clientId: client.id }, () => Promise.resolve())
  const name = `${plainName(client.name)}-${format(new Date(), 'yyyy-MM-dd')}.zip`
  setResponseStatus(event, 202)
  return useDataJobs().start(who, { kind: 'export', about: name }, async (progress, place) => {
    const path = await place()
    const from = { store: await useStore(), photos: usePorts().photos, who, clientId: client.id }
    const enclosed: Enclosed[] = []
    for (const [of, file] of [
      ['readings', 'readings.csv'],
      ['workbook', 'workbook.xlsx'],
      ['fhir', 'bundle.fhir.json'],
    ] as const) {
      await writeExport(of, path, from, progress)
      enclosed.push({ name: file, bytes: await readFile(path) })
    }
    const printed = await printApart({
      history: await findHistory(db, who, client),
      sets: await listSets(db, who),
      studio: me.studio.name,
      units: unitsOf(me),
      fromId: null,
      toId: null,
      today: localDay(Date.now(), me.studio.timeZone),
      energyOffered: me.energySince !== null,
      neutral: isNeutral(client),
    })
    if (printed) enclosed.push({ name: 'take-home.pdf', bytes: Buffer.from(printed.pdf) })
    const { snapshot } = await useStore()
    await snapshot((at) =>
      writeOwnFile(at, usePorts().photos, createWriteStream(path, { mode: 0o600 }), client.id, enclosed, progress),
    )
    return { file: { path, name } }
  })
})
