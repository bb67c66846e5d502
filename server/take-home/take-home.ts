import { setHeader, type H3Event } from 'h3'
import { isNeutral } from '../../shared/neutral'
import type { Client } from '../../shared/schemas/client'
import type { ClientHistory } from '../../shared/schemas/following'
import { useDatabase } from '../db/use-database'
import { failure } from '../http/failure'
import { plainName } from '../http/file-name'
import { listSets } from '../repositories/sets'
import { printApart } from './print-apart'

/** What the page is printed with beside the client's facts. */
export type About = Omit<Parameters<typeof printApart>[0], 'history' | 'sets'> & { studioId: string }

/** Prints the page to take home and answers with it. Always neutral for who is to see no percent and no weight. */
export async function sendTakeHome(event: H3Event, client: Client, history: ClientHistory, about: About) {
  const sets = await listSets(await useDatabase(), { studioId: about.studioId })
  const printed = await printApart({
    ...about,
    sets,
    history,
    neutral: about.neutral || isNeutral(client, about.today),
  })
  if (!printed) throw failure(409, 'There is no finished check-in to take home yet.')
  const name = plainName(client.name)
  setHeader(event, 'content-type', 'application/pdf')
  setHeader(event, 'content-disposition', `attachment; filename="${name}-${printed.day}.pdf"`)
  return printed.pdf
}
