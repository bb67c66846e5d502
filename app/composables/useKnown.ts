import { computed, type Ref } from 'vue'
import { daysBetween } from '#core/calendar'
import type { Composition } from '#core/composition/checkin'
import { checkCopied, valueOf, type KnownValues, type Slip } from '#core/readings'
import type { SiteId } from '#core/sites'
import type { MeasuringFacts } from '#shared/schemas/checkin'

/** What a reading can be held against: last time's values, this session's so far, and whether a round looks copied. */
export function useKnown(
  facts: Ref<MeasuringFacts | null>,
  result: Ref<Composition | null>,
  last: Ref<Composition | null>,
) {
  const lastKnown = computed<KnownValues>(() => ({
    ...last.value?.values,
    ...(last.value?.weightKg ? { weight: last.value.weightKg } : {}),
    ...(facts.value?.client.heightCm ? { height: facts.value.client.heightCm } : {}),
  }))

  /** The newest (or the n-th) live reading of each site, mm or cm. */
  function valuesOf(at: (count: number) => number): KnownValues {
    const values: Partial<Record<SiteId, number>> = {}
    for (const { site, live } of result.value?.session.sites ?? []) {
      const reading = live[at(live.length)]
      if (reading) values[site] = valueOf(reading)
    }
    return values
  }
  const here = computed(() => valuesOf((count) => count - 1))

  /** A whole round that repeats another exactly: said until a reading of it changes. */
  const copied = computed<Slip | null>(() => {
    const [first, second] = [valuesOf(() => 0), valuesOf(() => 1)]
    const size = result.value?.session.sites.length ?? 0
    const whole = (round: KnownValues) => Object.keys(round).length === size
    if (whole(second)) {
      const slip = checkCopied(second, first, 'the first round') ?? checkCopied(second, lastKnown.value, 'last time')
      if (slip) return slip
    }
    return whole(first) ? checkCopied(first, lastKnown.value, 'last time') : null
  })

  /** Days since last time; null when there was none. */
  const daysSince = computed(() => {
    const [then, now] = [facts.value?.last?.day, facts.value?.checkin.day]
    return then && now ? daysBetween(then, now) : null
  })

  return { lastKnown, here, copied, daysSince }
}
