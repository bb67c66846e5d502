import { collectDefaultMetrics, Counter, Histogram, Registry } from 'prom-client'

/** What this process counts: no ids, no names, nothing of anybody. */
export const registry = new Registry()
collectDefaultMetrics({ register: registry })

const REQUESTS = new Histogram({
  name: 'oak_pinch_request_seconds',
  help: 'How long answers took, by method and kind of answer.',
  labelNames: ['method', 'status'] as const,
  buckets: [0.005, 0.02, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10],
  registers: [registry],
})
const JOBS = new Counter({
  name: 'oak_pinch_jobs_total',
  help: 'Long work that has ended, by kind and how it ended.',
  labelNames: ['kind', 'state'] as const,
  registers: [registry],
})

/** Counts an answer. Its address is not kept: it may hold a secret. */
export function countAnswer(method: string, status: number, seconds: number): void {
  REQUESTS.observe({ method, status: `${Math.floor(status / 100)}xx` }, seconds)
}

export function countJob(kind: string, state: string): void {
  JOBS.inc({ kind, state })
}
