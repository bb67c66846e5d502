import { createWriteStream } from 'node:fs'
import { readFile } from 'node:fs/promises'
import { localDay } from '../../core/calendar'
import { unitsOf } from '../../shared/units-of'
import { isNeutral } from '../../shared/neutral'
import type { Client } from '../../shared/schemas/client'
import type { TakeHomeRequest } from '../take-home/facts'
import { findHistory } from '../repositories/history'
import { listSets } from '../repositories/sets'
import { findMe } from '../repositories/staff'
import { writeExport, type ExportFrom } from './exports'
import { writeEnclosed, writeOwnFile, type Enclosed } from './one-client'
import type { Progress } from './progress'

/** What a client's own file is made from. */
export interface OwnFileFrom extends Omit<ExportFrom, 'clientId'> {
  client: Client
  /** No figures: the page to take home alone, for somebody in neutral mode. */
  bare: boolean
  /** Prints the page to take home; null when there is nothing to take home yet. */
  print: (request: TakeHomeRequest) => Promise<{ pdf: Uint8Array } | null>
}

const TABLES = [
  ['readings', 'readings.csv'],
  ['workbook', 'workbook.xlsx'],
  ['fhir', 'bundle.fhir.json'],
] as const

async function pageOf({ store, who, client, print }: OwnFileFrom): Promise<Enclosed[]> {
  const request = await store.browse(async (db): Promise<TakeHomeRequest | null> => {
    const me = await findMe(db, who)
    return (
      me && {
        history: await findHistory(db, who, client),
        sets: await listSets(db, who),
        studio: me.studio.name,
        units: unitsOf(me),
        fromId: null,
        toId: null,
        today: localDay(Date.now(), me.studio.timeZone),
        energyOffered: me.energySince !== null,
        neutral: isNeutral(client, localDay(Date.now(), me.studio.timeZone)),
      }
    )
  })
  const printed = request && (await print(request))
  return printed ? [{ name: 'take-home.pdf', bytes: Buffer.from(printed.pdf) }] : []
}

/** Writes everything about one client to a file of their own: tables, workbook, bundle, page, rows, pictures. */
export async function makeOwnFile(path: string, from: OwnFileFrom, progress: Progress): Promise<void> {
  if (from.bare) {
    const note = `The record of ${from.client.name} asks for no numbers about their body. Everything on record is given out on request, with a reason.\n`
    const target = createWriteStream(path, { mode: 0o600 })
    await writeEnclosed(target, [{ name: 'about-this-file.txt', bytes: Buffer.from(note) }, ...(await pageOf(from))])
    return
  }
  const enclosed: Enclosed[] = []
  for (const [format, name] of TABLES) {
    await writeExport(format, path, { ...from, clientId: from.client.id }, progress)
    enclosed.push({ name, bytes: await readFile(path) })
  }
  enclosed.push(...(await pageOf(from)))
  await from.store.snapshot((db) =>
    writeOwnFile(db, from.photos, createWriteStream(path, { mode: 0o600 }), from.client.id, enclosed, progress),
  )
}
