import { computed } from 'vue'
import { SITES, type SiteId } from '#core/sites'
import { formatNumber, trimZero } from '#core/units'
import type { useMeasuring } from '~/composables/useMeasuring'

/** Words for the reading that a strike or a note would be about. */
export function useReadingWords(session: ReturnType<typeof useMeasuring>) {
  /** Figure of a picked reading; null: none is picked. */
  const pickedFigure = computed(() =>
    session.picked.value && session.strikable.value ? formatNumber(session.strikable.value.value, 1) : null,
  )

  /** Site and figure of the reading a note is written at. */
  const noteAt = computed(() => {
    const reading = session.strikable.value
    if (!reading) return null
    const site = Object.hasOwn(SITES, reading.site) ? SITES[reading.site as SiteId].name : reading.site
    return `${site}, ${trimZero(formatNumber(reading.value, 1))}`
  })

  /** Ids of readings with a note. */
  const noted = computed(() => new Set(session.session.value.remarks.map(({ readingId }) => readingId)))

  return { pickedFigure, noteAt, noted }
}
