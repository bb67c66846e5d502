import { computed, ref, type Ref } from 'vue'
import type { Site, SiteId, WayId } from '#core/sites'
import type { MeasuringFacts } from '#shared/schemas/checkin'

/** What last time says about the site being read: how it was lifted, and whether it was left out. */
export function useSiteHints(facts: Ref<MeasuringFacts | null>, current: Ref<Site | null>) {
  /** Ways chosen here, by site. */
  const ways = ref<Partial<Record<SiteId, WayId>>>({})

  /** The way a fold is lifted: as chosen, as last time, or the first one. */
  const method = computed(() => {
    const site = current.value
    if (site?.kind !== 'fold' || !site.ways) return null
    const before = facts.value?.last?.readings.findLast((reading) => reading.site === site.id)?.method
    return ways.value[site.id as SiteId] ?? before ?? site.ways[0] ?? null
  })

  function chooseWay(way: WayId): void {
    if (current.value) ways.value = { ...ways.value, [current.value.id]: way }
  }

  /** A site left out last time, with why: leaving it out again is one press. */
  const leftOutBefore = computed(() => {
    const [site, before] = [current.value, facts.value?.last]
    if (!site || !before || before.readings.some((one) => one.site === site.id)) return null
    return before.skips.find((one) => one.site === site.id) ?? null
  })

  return { method, chooseWay, leftOutBefore }
}
