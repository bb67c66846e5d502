import { minutesToMilliseconds } from 'date-fns'

/** Proof of identity stays fresh this many minutes; CONFIRM_AFTER_MINUTES changes it. */
const freshMinutes = () => Number(process.env.CONFIRM_AFTER_MINUTES ?? 15) || 15

/** Whether somebody has proved lately who they are. A proof from the future, under a wrong clock, counts as none. */
export function isFresh({ confirmedAt }: { confirmedAt: string }, now = Date.now()): boolean {
  const age = now - Date.parse(confirmedAt)
  return age < minutesToMilliseconds(freshMinutes()) && age > -minutesToMilliseconds(freshMinutes())
}
