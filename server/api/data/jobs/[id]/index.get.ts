import { defineEventHandler } from 'h3'
import type { DataJob } from '../../../../../shared/schemas/data'
import { jobAt } from '../../../../http/data-jobs'

/** How far some work is. */
export default defineEventHandler((event): DataJob => jobAt(event).job)
