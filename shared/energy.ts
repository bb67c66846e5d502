import { daysBetween, type Day } from '../core/calendar'
import { ageInYears, dayOf, type SpanEnd } from '../core/composition'
import {
  believe,
  dailyOf,
  daysUntilBetter,
  factorOf,
  lastIntakeChange,
  observedExpenditure,
  restingOf,
  splitOf,
  TRAINING_TIMES,
  WATER_DAYS,
  WORK,
  type Believed,
  type ForecastStart,
  type Observed,
  type Resting,
  type Split,
} from '../core/energy'
import { endFigures, judgeFigures } from '../core/following'
import { lossRefusals, type PlanContext } from '../core/plan'
import type { Measured } from '../core/composition'
import { noisesAt, type FollowedRecord } from './followed-record'
import type { FollowedEnd } from './following'
import type { IntakeRecord } from './schemas/following'

/** What is held of a client's expenditure. */
export interface EnergyFacts {
  /** The newest check-in: the body all of it stands on. */
  end: FollowedEnd
  resting: Resting
  /** Multiple of resting; null: nobody has said how active they are. */
  factor: Measured | null
  /** Daily expenditure by resting and activity, by the log, and by both; kcal a day. */
  predicted: Measured | null
  observed: (Observed & { from: Day; until: Day }) | null
  believed: Believed | null
  /** Days between check-ins, every day logged, from which the log would be surer; null: never, or nothing predicted. */
  betterFrom: number | null
  /** How their own change of weight split since the pinned start; null: it is not real. */
  split: Split | null
  /** Why no deficit may be planned for this person; empty: one may. */
  personal: string[]
}

/** Fat-free mass with the error of its measuring and of the equation's level: resting hangs on the true one. */
function leanOf(end: SpanEnd): Measured | null {
  const { lean, weight } = endFigures(end)
  const { estimate } = end.result
  if (!lean) return null
  const see = estimate && 'seePercent' in estimate ? estimate.seePercent : null
  const level = see === null || !weight ? 0 : ((see / 100) * weight.value) ** 2
  return { value: lean.value, variance: lean.variance + level }
}

/** The log held against the check-ins it spans: from the first one it reaches back to, to the newest. */
function observedOf(record: FollowedRecord, intakes: readonly IntakeRecord[]): EnergyFacts['observed'] {
  const [first] = intakes
  const newest = record.ends.at(-1)
  if (!first || !newest) return null
  // The first two weeks after a change of intake are water: the span begins at a check-in after them.
  const changed = lastIntakeChange(intakes)
  const place = record.ends.findIndex(
    (end) =>
      daysBetween(dayOf(end.facts), first.day) <= 3 &&
      (changed === null || daysBetween(changed, dayOf(end.facts)) >= WATER_DAYS),
  )
  const start = record.ends[place]
  if (!start || start === newest) return null
  const { fat, weight } = judgeFigures(record.ends.slice(place), ['fat', 'weight'], {
    noises: noisesAt(record, newest),
    running: false,
  })
  if (!fat || !weight) return null
  const [from, until] = [dayOf(start.facts), dayOf(newest.facts)]
  const found = observedExpenditure(intakes, { from, until, fat, weight })
  return found && { ...found, from, until }
}

/** The client's own split of fat and lean since the pinned start. */
function splitSince(record: FollowedRecord): Split | null {
  const since = record.ends.slice(Math.max(0, record.pinned))
  const [start, newest] = [since[0], since.at(-1)]
  if (!start || !newest || start === newest) return null
  const { fat, weight } = judgeFigures(since, ['fat', 'weight'], { noises: noisesAt(record, newest), running: false })
  const began = endFigures(start).fat?.value
  return fat && weight && began !== undefined ? splitOf(fat, weight, began) : null
}

/** Everything held of a client's expenditure; null without a check-in that holds a weight, and under 18. */
export function energyOf(
  record: FollowedRecord,
  intakes: readonly IntakeRecord[],
  { today, units }: Pick<PlanContext, 'today' | 'units'>,
): EnergyFacts | null {
  const end = record.ends.findLast(({ result }) => result.weightKg !== null)
  if (!end) return null
  const { client, choices } = record
  const resting = restingOf({
    sex: client.sex,
    ageYears: ageInYears(client.birthDate, today),
    heightCm: client.heightCm,
    weightKg: end.result.weightKg ?? 0,
    leanKg: leanOf(end),
    athlete: client.athlete,
  })
  if (!resting) return null
  const factor = choices.activity ? factorOf(choices.activity) : null
  const predicted = factor && dailyOf(resting.lead, factor)
  const observed = observedOf(record, intakes)
  const own = endFigures(end)
  return {
    end,
    resting,
    factor,
    predicted,
    observed,
    believed: predicted ? believe(predicted, observed) : observed && { ...observed, observedWeight: 1 },
    betterFrom:
      predicted && own.fat && own.weight
        ? daysUntilBetter(predicted, {
            intakeKcal: predicted.value,
            fatVariance: 2 * own.fat.variance,
            weightVariance: 2 * own.weight.variance,
          })
        : null,
    split: splitSince(record),
    personal: lossRefusals({ start: end, person: client, today, units }),
  }
}

/** The body a forecast starts from; null where fat and lean mass or the expenditure are not known. */
export function forecastStartOf({ end, resting, believed }: EnergyFacts): ForecastStart | null {
  const { fat, weight } = endFigures(end)
  return fat && weight && believed
    ? { fatKg: fat, weightKg: weight, restingKcal: resting.lead.value, dailyKcal: believed }
    : null
}

/** What so many hours of training more a week would add to a day, kcal. */
export function trainingMore({ resting }: EnergyFacts, hours: number): number {
  const seated = WORK[0].factor
  return (resting.lead.value * (hours / 7) * (TRAINING_TIMES - seated)) / 24
}
