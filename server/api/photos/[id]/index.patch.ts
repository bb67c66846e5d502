import { defineEventHandler } from 'h3'
import { alignmentInput, type Photo } from '../../../../shared/schemas/photo'
import { useDatabase } from '../../../db/use-database'
import { readJson } from '../../../http/body'
import { photoAt } from '../../../http/params'
import { alignPhoto } from '../../../repositories/photos'

/** Keeps how a photograph was laid over the others. */
export default defineEventHandler(async (event): Promise<Photo> => {
  const photo = await photoAt(event)
  await alignPhoto(await useDatabase(), photo.id, await readJson(event, alignmentInput))
  return photoAt(event)
})
