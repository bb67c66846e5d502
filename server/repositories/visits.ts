import { and, isNull } from 'drizzle-orm'
import { checkin } from '../db/schema'

/** A check-in that counts as a visit of its client: not voided, and no turn of a study. */
export const isVisit = and(isNull(checkin.voidedAt), isNull(checkin.studyId))
