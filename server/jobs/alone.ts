import type { LockName } from '../db/server-store'
import { useStore } from '../db/use-database'

/** Does a job unless another process is doing it now. @returns whether it was done here */
export async function alone(lock: LockName, work: () => Promise<void>): Promise<boolean> {
  const { server } = await useStore()
  if (server) return server.alone(lock, work)
  await work()
  return true
}
