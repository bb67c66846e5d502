import { defineEventHandler } from 'h3'
import type { DataJob } from '../../../../../shared/schemas/data'
import { jobAt } from '../../../../http/data-jobs'
import { useDataJobs } from '../../../../jobs/use-data'

/** Gives work up: what it has changed is undone. */
export default defineEventHandler((event): DataJob => {
  const { job } = jobAt(event)
  useDataJobs().stop(job.id)
  return job
})
