<script setup lang="ts">
import type { Change, Span } from '#core/following'
import { SITES } from '#core/sites'

/** What differs between the two ends and what can still be compared; how the start was chosen, and what was real before. */
const props = defineProps<{ span: Span; searched: boolean }>()

const shared = computed(() => {
  const { comparability, summed } = props.span
  if (comparability.percent) return null
  if (summed.length === 0) return 'No fold is shared: only the weight can be compared.'
  const names = summed.map((site) => SITES[site].name.toLowerCase()).join(', ')
  return `What can be compared: ${names}, their sum, and the weight.`
})

/** Each verdict keeps its day: what was real once and is not now. */
const was = computed(() => {
  const named: [string, Change | null][] = [
    ['The sum', props.span.sum],
    ['Fat', props.span.fat],
    ['Lean mass', props.span.lean],
    ['Weight', props.span.weight],
  ]
  return named.flatMap(([name, change]) =>
    change?.realOn && change.verdict !== 'real'
      ? [`${name} passed the line of real on ${sayDay(change.realOn)} and is not there now.`]
      : [],
  )
})
const times = computed(() => props.span.leading?.searched ?? 1)
</script>

<template>
  <div
    v-if="span.comparability.differences.length > 0 || searched || was.length > 0"
    class="border-b border-rule px-4 py-1.5 text-[15px] sm:px-6"
    data-comparability
  >
    <p
      v-for="difference in span.comparability.differences"
      :key="difference.sentence"
      :data-difference="difference.code"
    >
      {{ difference.sentence }}
    </p>
    <p v-if="shared" class="font-semibold" data-shared>{{ shared }}</p>
    <p v-if="searched" data-searched-note>
      This start was searched for, not chosen beforehand: its odds are divided by
      <span class="figure">{{ times }}</span>, so that all starts together keep the promise.
    </p>
    <p v-for="one in was" :key="one" data-was>{{ one }}</p>
  </div>
</template>
