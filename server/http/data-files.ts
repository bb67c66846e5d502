import { createWriteStream } from 'node:fs'
import { rm, stat, writeFile } from 'node:fs/promises'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { getHeader, getRouterParam, type H3Event } from 'h3'
import { readFile } from 'node:fs/promises'
import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import type { BroughtFile } from '../exchange/files'
import { useDataJobs } from '../jobs/use-data'
import { failure } from './failure'
import { signedInAs } from './signed-in'

/** Largest file that is brought in by the page, bytes; by command there is no such bound. */
export const FILE_LIMIT = 2 * 1024 ** 3
const TOO_LARGE = 'A file has at most 2 GB here: larger ones are brought in by the command `npm run import`.'

const beside = z.object({ studioId: z.uuid(), name: z.string() })

/** Keeps what is sent as a file, piece by piece. @returns its id; it goes by itself after some hours */
export async function keepFile(event: H3Event, studioId: string, name: string): Promise<string> {
  if (!/^application\/octet-stream$/i.test(getHeader(event, 'content-type') ?? ''))
    throw failure(415, 'A file comes as it is (content-type application/octet-stream).')
  if (Number(getHeader(event, 'content-length') ?? 0) > FILE_LIMIT) throw failure(413, TOO_LARGE)
  const id = uuid()
  const path = await useDataJobs().place(id)
  let size = 0
  const bounded = new Transform({
    transform(chunk: Buffer, _encoding, next) {
      size += chunk.length
      next(size > FILE_LIMIT ? failure(413, TOO_LARGE) : null, chunk)
    },
  })
  try {
    await pipeline(event.node.req, bounded, createWriteStream(path, { mode: 0o600 }))
  } catch (error) {
    await rm(path, { force: true })
    throw error
  }
  await writeFile(`${path}.about`, JSON.stringify({ studioId, name }), { mode: 0o600 })
  return id
}

/** The file a request is about. Throws 404 when it has gone, or is another studio's. */
export async function fileAt(event: H3Event): Promise<BroughtFile> {
  const { studioId } = signedInAs(event)
  const sentence = 'This file is here no longer: please choose it once more.'
  const id = z.uuid().safeParse(getRouterParam(event, 'id'))
  if (!id.success) throw failure(404, sentence)
  const path = await useDataJobs().place(id.data)
  const about = await readFile(`${path}.about`, 'utf8').then(
    (text) => beside.safeParse(JSON.parse(text)),
    () => null,
  )
  const isThere = await stat(path).then(
    () => true,
    () => false,
  )
  if (!about?.success || about.data.studioId !== studioId || !isThere) throw failure(404, sentence)
  return { path, name: about.data.name }
}
