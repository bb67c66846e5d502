import type { Store } from '../db/database'
import type { LockName } from '../db/server-store'

/** Does a job unless another process at the same database is doing it now. @returns whether it was done here */
export async function alone(
  { server }: Pick<Store, 'server'>,
  lock: LockName,
  work: () => Promise<void>,
): Promise<boolean> {
  if (server) return server.alone(lock, work)
  await work()
  return true
}
