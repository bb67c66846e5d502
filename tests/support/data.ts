import type { DataJob } from '../../shared/schemas/data'
import type { Caller } from './api'
import { until } from './until'

/** Waits until some long work has ended, and gives it. */
export async function endOf(
  caller: Caller,
  started: { status: number; body: DataJob; text: string },
): Promise<DataJob> {
  if (started.status !== 202) throw new Error(`not begun: ${started.status} ${started.text}`)
  return until(
    async () => (await caller.send<DataJob>('GET', `/api/data/jobs/${started.body.id}`)).body,
    ({ state }) => state !== 'running',
  )
}

/** Brings a file before the application; gives its id. */
export async function broughtFile(caller: Caller, name: string, content: string | Buffer): Promise<string> {
  const sent = await caller.sendBytes<{ id: string }>(
    `/api/data/files?${new URLSearchParams({ name })}`,
    Buffer.from(content as string),
  )
  if (sent.status !== 201) throw new Error(`not taken: ${sent.status} ${sent.text}`)
  return sent.body.id
}
