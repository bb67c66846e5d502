import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { sendStream, setHeader } from 'h3'
import { jobAt } from '../../../../http/data-jobs'
import { failure } from '../../../../http/failure'
import { defineRoute } from '../../../../http/route'

/** The file some work has made. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event) => {
  const { job, path } = jobAt(event)
  const size = path
    ? await stat(path).then(
        ({ size: bytes }) => bytes,
        () => null,
      )
    : null
  if (!path || !job.fileName || size === null) throw failure(404, 'This file is here no longer: please make it again.')
  setHeader(event, 'content-type', 'application/octet-stream')
  setHeader(event, 'content-length', size)
  setHeader(event, 'content-disposition', `attachment; filename="${job.fileName.replace(/[^\w.-]/g, '-')}"`)
  return sendStream(event, createReadStream(path))
})
