import type { DataJob } from '../../../../../shared/schemas/data'
import { jobAt } from '../../../../http/data-jobs'
import { defineRoute } from '../../../../http/route'

/** How far some work is. */
export default defineRoute(
  { access: 'lead', proof: 'second', session: 'remembered' },
  (event): DataJob => jobAt(event).job,
)
