<script setup lang="ts">
import type { Reached } from '#core/equations'
import { formatNumber } from '#core/units'

/** Every equation this check-in feeds on one scale of percent fat, each with its band: how far methods lie apart. */
const props = defineProps<{
  ranked: { estimate: Reached; reasons: string[] }[]
  chosenId: string | null
  busy: boolean
}>()
const emit = defineEmits<{ choose: [equationId: string] }>()

const range = computed(() => {
  const all = props.ranked.flatMap(({ estimate: { percent, band } }) => [band?.low ?? percent, band?.high ?? percent])
  return {
    low: Math.max(0, Math.floor((Math.min(...all) - 1) / 5) * 5),
    high: Math.ceil((Math.max(...all) + 1) / 5) * 5,
  }
})
const steps = computed(() => {
  const { low, high } = range.value
  return Array.from({ length: high - low + 1 }, (_, i) => low + i)
})
function across(percent: number): string {
  const { low, high } = range.value
  return `${((percent - low) / Math.max(1, high - low)) * 100}%`
}
</script>

<template>
  <table class="w-full" data-equations>
    <thead>
      <tr>
        <th scope="col" class="pb-1 text-left text-sm font-medium text-faded">Equation, best fitting first</th>
        <th scope="col" class="w-[46%] pb-1">
          <span class="sr-only">Percent fat with its band</span>
          <div class="relative h-6" aria-hidden="true">
            <template v-for="step in steps" :key="step">
              <span
                class="absolute bottom-0 border-l border-contour"
                :class="step % 5 === 0 ? 'h-2' : 'h-1'"
                :style="{ left: across(step) }"
              />
              <span
                v-if="step % 5 === 0"
                class="figure absolute -top-0.5 -translate-x-1/2 text-xs font-normal text-faded"
                :style="{ left: across(step) }"
                >{{ step }}</span
              >
            </template>
            <span class="absolute inset-x-0 bottom-0 border-b border-ink" />
          </div>
        </th>
        <th scope="col" class="pb-1 text-right text-sm font-medium text-faded">%</th>
        <th scope="col"><span class="sr-only">Choose</span></th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="{ estimate, reasons } in ranked"
        :key="estimate.equation.id"
        class="border-b border-rule"
        :data-equation="estimate.equation.id"
        :class="{ 'bg-wash': estimate.equation.id === chosenId }"
      >
        <th scope="row" class="py-1.5 pr-3 pl-2 text-left font-normal">
          <span :class="{ 'font-bold': estimate.equation.id === chosenId }">{{ estimate.equation.label }}</span>
          <span class="block text-sm text-faded">
            {{
              estimate.cautions.length > 0
                ? estimate.cautions.map(({ sentence }) => sentence).join(' ')
                : reasons.join(', ')
            }}
          </span>
        </th>
        <td class="py-1.5">
          <div class="relative h-6">
            <div
              v-if="estimate.band"
              class="absolute top-1.5 h-3 bg-fat/20"
              :style="{
                left: across(estimate.band.low),
                width: `calc(${across(estimate.band.high)} - ${across(estimate.band.low)})`,
              }"
            />
            <div
              class="absolute top-0.5 h-5 w-1 -translate-x-1/2"
              :class="estimate.equation.id === chosenId ? 'bg-fat' : 'bg-contour'"
              :style="{ left: across(estimate.percent) }"
            />
          </div>
        </td>
        <td class="figure py-1.5 pl-3 text-right text-lg font-bold">{{ formatNumber(estimate.percent) }}</td>
        <td class="py-1.5 pr-2 pl-3 text-right">
          <span v-if="estimate.equation.id === chosenId" class="text-sm font-semibold text-signal">followed</span>
          <button
            v-else
            class="press press-quiet min-h-9 px-3 text-sm"
            :disabled="busy"
            :aria-label="`Follow with ${estimate.equation.label}`"
            @click="emit('choose', estimate.equation.id)"
          >
            Follow
          </button>
        </td>
      </tr>
    </tbody>
  </table>
</template>
