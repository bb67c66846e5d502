import type { CheckinRecord } from './schemas/checkin'
import type { ClientHistory } from './schemas/following'

/** What is said of a check-in that came from a file without a name. */
export const BROUGHT_IN = 'brought in, not said who'

/** Who measured a check-in: the assessor by name, else who began it; nobody's name for one a file brought in without one. */
export function assessorSaid(
  { id, assessorId, startedBy }: Pick<CheckinRecord, 'id' | 'assessorId' | 'startedBy'>,
  { errors, brought = [] }: Pick<ClientHistory, 'errors' | 'brought'>,
): string {
  const known = errors.find((one) => one.assessorId === assessorId)?.name
  if (known) return known
  return assessorId === null && brought.some(({ checkinId }) => checkinId === id) ? BROUGHT_IN : startedBy
}
