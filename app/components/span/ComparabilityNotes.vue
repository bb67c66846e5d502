<script setup lang="ts">
import type { Comparability } from '#core/composition'
import { SITES, type SiteId } from '#core/sites'

/** What differs between the two ends and what can still be compared, and how the start was chosen. */
const props = defineProps<{
  comparability: Comparability
  /** The folds both hold; null while they are not known. */
  summed: readonly SiteId[] | null
  searched: boolean
}>()

const shared = computed(() => {
  const { comparability, summed } = props
  if (comparability.percent || !summed) return null
  if (summed.length === 0) return 'No fold is shared: only the weight can be compared.'
  const names = summed.map((site) => SITES[site].name.toLowerCase()).join(', ')
  return summed.length === 1
    ? `What can be compared: ${names} and the weight.`
    : `What can be compared: ${names}, their sum, and the weight.`
})
</script>

<template>
  <div
    v-if="comparability.differences.length > 0 || searched"
    class="border-b border-rule px-4 py-1.5 text-[15px] sm:px-6"
    data-comparability
  >
    <p v-for="difference in comparability.differences" :key="difference.sentence" :data-difference="difference.code">
      {{ difference.sentence }}
    </p>
    <p v-if="shared" class="font-semibold" data-shared>{{ shared }}</p>
    <p v-if="searched" data-searched-note>You picked this start after the fact, so stronger proof is asked.</p>
  </div>
</template>
