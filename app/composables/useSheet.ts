import { computed, type Ref } from 'vue'
import { nextStep } from '#core/readings'
import { SITES } from '#core/sites'
import { markOf, type SheetRow } from '~/components/measure/sheet'
import type { Composition } from '#core/composition/checkin'
import type { Cell } from '~/composables/useMeasuring'

/** The log sheet of a session as rows, and the words for how far it is. */
export function useSheet(result: Ref<Composition | null>, last: Ref<Composition | null>, cell: Ref<Cell>) {
  const current = computed(() => (cell.value.kind === 'site' ? SITES[cell.value.site] : null))

  const rows = computed<SheetRow[]>(() => {
    if (!result.value) return []
    const step = nextStep(result.value.session)
    const upcoming = step.kind === 'measure' ? step.site : null
    return result.value.session.sites.map((state) => ({
      site: SITES[state.site],
      state,
      last: last.value?.values[state.site] ?? null,
      mark: markOf(state, current.value?.id ?? null, upcoming),
    }))
  })

  const round = computed(() => {
    const state = result.value?.session
    if (!state || state.complete) return 'every site settled'
    const open = state.sites.filter(
      ({ status, skipped }) => status !== 'agreed' && status !== 'unsteady' && skipped === null,
    )
    const least = Math.min(...open.map(({ live }) => live.length))
    const base = open.find(({ live }) => live.length === least)?.policy.base ?? state.base
    return least >= base ? 'measuring again where rounds differ' : `round ${least + 1} of ${base}`
  })

  return { current, rows, round }
}
