<script setup lang="ts">
import { SITES } from '#core/sites'
import type { MassUnit } from '#core/units'
import type { Cell } from '~/composables/useMeasuring'

const props = defineProps<{
  cell: Cell
  typed: string
  problem: string | null
  massUnit: MassUnit
  count: { share: number; done: boolean }
  /** What stands in the note field of the client about landmarks. */
  side: 'right' | 'left'
}>()
defineEmits<{ count: []; unit: [unit: MassUnit]; skip: [] }>()

const site = computed(() => (props.cell.kind === 'fold' ? SITES[props.cell.site] : null))
const ORDINAL = ['', 'First', 'Second', 'Third', 'Fourth']
const heading = computed(() => site.value?.name ?? 'Weight')
const where = computed(
  () => site.value?.where ?? 'As the client stands, in the least clothing. The same clothes next time.',
)
const round = computed(() =>
  props.cell.kind === 'fold' ? `${ORDINAL[props.cell.round] ?? `${props.cell.round}th`} reading` : 'Before the folds',
)
</script>

<template>
  <section aria-live="polite" class="grid gap-2">
    <div class="flex items-baseline justify-between gap-2">
      <h2 class="text-3xl leading-tight font-bold sm:text-[38px]">{{ heading }}</h2>
      <span class="text-sm whitespace-nowrap text-faded">{{ round }}</span>
    </div>
    <p class="min-h-11 text-[15px] leading-snug">
      {{ where }} <span v-if="cell.kind === 'fold' && side === 'left'" class="font-semibold">Left side.</span>
    </p>
    <div class="flex items-end justify-between border-b-3 border-ink pb-1">
      <output
        class="figure text-6xl leading-none font-bold sm:text-7xl"
        :class="{ 'text-rule': typed === '' }"
        data-entry
        aria-label="Entry"
        >{{ typed === '' ? '0' : typed }}</output
      >
      <div v-if="cell.kind === 'fold'" class="flex items-center gap-3">
        <span class="text-faded">mm</span>
        <CountRing :share="count.share" :done="count.done" @start="$emit('count')" />
      </div>
      <div v-else class="flex gap-2" @pointerdown.prevent>
        <button
          v-for="unit in ['kg', 'lb'] as const"
          :key="unit"
          type="button"
          class="press min-h-11 px-3"
          :class="unit === massUnit ? 'press-first' : 'press-quiet'"
          :aria-pressed="unit === massUnit"
          @click="$emit('unit', unit)"
        >
          {{ unit }}
        </button>
      </div>
    </div>
    <p class="min-h-6 text-[15px] leading-snug font-semibold text-alert" role="status" data-problem>{{ problem }}</p>
  </section>
</template>
