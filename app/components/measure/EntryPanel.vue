<script setup lang="ts">
import type { Slip } from '#core/readings'
import { SITES, WAYS, type WayId } from '#core/sites'
import { formatNumber, type LengthUnit, type MassUnit } from '#core/units'
import type { Cell } from '~/composables/useMeasuring'

const props = defineProps<{
  cell: Cell
  typed: string
  /** What a connected device shows now. */
  live: { device: 'caliper' | 'scale'; value: number } | null
  problem: string | null
  slip: Slip | null
  massUnit: MassUnit
  lengthUnit: LengthUnit
  count: { share: number; done: boolean; seconds: number }
  side: 'right' | 'left'
  /** The client's own landmark at this site. */
  landmark: string | null
  /** How the fold is lifted, where there are several ways. */
  method: WayId | null
}>()
const emit = defineEmits<{
  count: []
  mass: [unit: MassUnit]
  length: [unit: LengthUnit]
  method: [method: WayId]
  correct: []
}>()

const ORDINAL = ['', 'First', 'Second', 'Third', 'Fourth', 'Fifth']
const site = computed(() => (props.cell.kind === 'site' ? SITES[props.cell.site] : null))
const fold = computed(() => (site.value?.kind === 'fold' ? site.value : null))
const heading = computed(() => site.value?.name ?? (props.cell.kind === 'height' ? 'Height' : 'Weight'))
const where = computed(() => {
  if (site.value) return site.value.where
  return props.cell.kind === 'height'
    ? 'Barefoot, heels together, head level, at the end of a breath in. Three trials.'
    : 'As the client stands, in the least clothing. The same clothes next time.'
})
const shown = computed(() => {
  const { live, cell } = props
  const fits = live?.device === 'scale' ? cell.kind === 'weight' : fold.value !== null
  return live && fits ? formatNumber(live.value, 1) : null
})
const round = computed(() => {
  const { cell } = props
  if (cell.kind === 'weight' || cell.kind === 'none') return 'Before the sites'
  return `${ORDINAL[cell.round] ?? `${cell.round}th`} ${cell.kind === 'height' ? 'trial' : 'reading'}`
})
</script>

<template>
  <section aria-live="polite" class="grid content-start gap-1.5">
    <div class="flex items-baseline justify-between gap-2">
      <h2 class="heading text-3xl leading-tight font-bold sm:text-[34px]">{{ heading }}</h2>
      <span class="text-sm whitespace-nowrap text-faded">{{ round }}</span>
    </div>
    <p class="where min-h-10 text-[15px] leading-snug">
      {{ where }}
      <span v-if="site && side === 'left'" class="font-semibold">Left side.</span>
      <span v-if="landmark" class="text-faded" data-landmark> Landmark: {{ landmark }}</span>
    </p>
    <div v-if="fold?.ways" class="flex flex-wrap gap-1" role="group" aria-label="How it is lifted" @pointerdown.prevent>
      <button
        v-for="way in fold.ways"
        :key="way"
        type="button"
        class="press min-h-9 px-2 text-sm"
        :class="way === method ? 'press-first' : 'press-quiet'"
        :aria-pressed="way === method"
        @click="emit('method', way)"
      >
        {{ WAYS[way] }}
      </button>
    </div>
    <div class="flex items-end justify-between border-b-3 border-ink pb-1">
      <output
        class="figure leading-none font-bold"
        :class="[
          typed === '' && shown === null ? 'text-rule' : '',
          typed.length > 6 ? 'text-4xl' : 'text-6xl sm:text-7xl',
        ]"
        data-entry
        aria-label="Entry"
        >{{ typed === '' ? (shown ?? '0') : typed }}</output
      >
      <div v-if="fold" class="flex items-center gap-3">
        <span class="text-faded">mm</span>
        <CountRing :share="count.share" :done="count.done" :seconds="count.seconds" @start="emit('count')" />
      </div>
      <UnitSwitch
        v-else-if="cell.kind === 'weight'"
        :units="['kg', 'lb']"
        :unit="massUnit"
        @choose="emit('mass', $event)"
      />
      <UnitSwitch v-else :units="['cm', 'in']" :unit="lengthUnit" @choose="emit('length', $event)" />
    </div>
    <div class="flex min-h-10 items-center gap-2" role="status">
      <p class="flex-1 text-[15px] leading-snug font-semibold text-alert" data-problem>
        {{ problem }}
        <span v-if="slip && !slip.blocks" class="font-normal text-faded">Keep again to keep it.</span>
      </p>
      <button
        v-if="slip?.correction"
        type="button"
        class="press min-h-10 px-3"
        @pointerdown.prevent
        @click="emit('correct')"
      >
        {{ slip.correction.label }}<span class="figure text-sm text-faded max-sm:hidden">c</span>
      </button>
    </div>
  </section>
</template>

<style scoped>
@media (max-height: 499px) {
  .heading {
    font-size: 22px;
  }
  .where {
    min-height: 0;
    font-size: 13px;
  }
  [data-entry] {
    font-size: 40px;
  }
}
</style>
