import type { DataJob } from '../../../../../shared/schemas/data'
import { jobAt } from '../../../../http/data-jobs'
import { defineRoute } from '../../../../http/route'
import { useDataJobs } from '../../../../jobs/use-data'

/** Gives work up: what it has changed is undone. */
export default defineRoute({ access: 'lead', proof: 'second', session: 'remembered' }, (event): DataJob => {
  const { job } = jobAt(event)
  useDataJobs().stop(job.id)
  return job
})
