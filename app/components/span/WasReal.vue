<script setup lang="ts">
import type { Change, Span } from '#core/following'

/** Each verdict keeps its day: what was real once and is not now. In neutral mode the sum alone. */
const props = defineProps<{ span: Span; neutral: boolean }>()

const was = computed(() => {
  const { sum, fat, lean, weight } = props.span
  const named: [string, Change | null][] = [
    ['The sum', sum],
    ...(props.neutral
      ? []
      : ([
          ['Fat', fat],
          ['Lean mass', lean],
          ['Weight', weight],
        ] as [string, Change | null][])),
  ]
  return named.flatMap(([name, change]) =>
    change?.realOn && change.verdict !== 'real'
      ? [`${name} passed the line of real on ${sayDay(change.realOn)} and is not there now.`]
      : [],
  )
})
</script>

<template>
  <div class="text-[15px]">
    <p v-for="one in was" :key="one" data-was>{{ one }}</p>
  </div>
</template>
