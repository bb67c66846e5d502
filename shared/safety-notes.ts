import { addDays, type Day } from '../core/calendar'
import { cautionFacts, cautionsFor } from '../core/cautions'
import { endFigures } from '../core/following'
import { isPreparing, unplannedLoss, type Planned } from '../core/safety'
import { massToKg } from '../core/units'
import type { FollowedEnd } from './following'
import { targetOf } from './plan'
import type { ClientHistory } from './schemas/following'

/** Something to know about a client before anything else on their page. */
export interface SafetyNote {
  code: string
  sentence: string
}

/** Days on which a loss was planned: a plan under way until it ended or today. */
function lossesPlanned({ plans }: Pick<ClientHistory, 'plans'>, ends: readonly FollowedEnd[], today: Day): Planned[] {
  return (plans ?? []).flatMap((plan) => {
    const start = ends.find((end) => end.record.id === plan.checkinId)
    const from = start && endFigures(start)[plan.kind]?.value
    if (!start || from === undefined || targetOf(plan).value >= from) return []
    return [{ from: start.record.day, to: plan.endedAt?.slice(0, 10) ?? addDays(today, 1) }]
  })
}

/**
 * What a coach has to know about a client: cautions of their record and of their newest check-in, and a weight that falls
 * without a plan.
 */
export function safetyNotes(
  history: Pick<ClientHistory, 'client' | 'plans' | 'weighIns'>,
  ends: readonly FollowedEnd[],
  today: Day,
  sayDay: (day: Day) => string = (day) => day,
): SafetyNote[] {
  const now = ends.at(-1)
  const folds = now?.result.session.sites.flatMap(({ value }) => value ?? []) ?? []
  const visit = now
    ? {
        bmi: now.result.indexes.bmi,
        percent: now.result.estimate && 'percent' in now.result.estimate ? now.result.estimate.percent : null,
        largestFoldMm: folds.length > 0 ? Math.max(...folds) : null,
      }
    : {}
  const cautions = cautionsFor(cautionFacts(history.client, today, visit))
  const weights = [
    ...ends.flatMap((end) => {
      const kg = end.result.weightKg
      return kg === null ? [] : [{ day: end.record.day, kg }]
    }),
    ...history.weighIns.map(({ day, value, unit }) => ({ day, kg: massToKg(value, unit) })),
  ]
  const fallen = unplannedLoss(weights, lossesPlanned(history, ends, today))
  const { preparation } = history.client
  const prepared =
    preparation && isPreparing(preparation, today)
      ? [
          {
            code: 'preparation',
            sentence: `In preparation for ${sayDay(preparation.day)}, cleared by ${preparation.clearedBy} until ${sayDay(preparation.clearedUntil)}.`,
          },
        ]
      : []
  return [
    ...prepared,
    ...cautions.map(({ code, sentence }) => ({ code, sentence })),
    ...(fallen ? [{ code: fallen.code, sentence: fallen.sentence }] : []),
  ]
}
