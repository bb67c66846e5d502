<script setup lang="ts">
import { changeRow, type Change, type SpanSite, type VerdictKind } from '#core/following'
import { SITES } from '#core/sites'
import type { Units } from '#core/units'

/** Site by site over a span: each fold a short line from then to now, over the error of comparing two visits. */
const props = defineProps<{ folds: readonly SpanSite[]; units: Units }>()

const rows = computed(() => props.folds.map((one) => ({ ...one, row: changeRow(one.change, props.units) })))

/** Nothing is said of it, or that nothing moved. */
const isQuiet = (verdict: VerdictKind) => verdict === 'too-early' || verdict === 'no-sign' || verdict === 'steady'
/** Half-width of the 95 % error of the difference of two visits, mm. */
const errorOf = ({ error }: Change) => error
const longest = computed(() =>
  Math.max(10, ...props.folds.flatMap(({ change }) => [change.then + errorOf(change), change.now])),
)
/** A tick every ten millimetres, every twenty on long scales. */
const ticks = computed(() => {
  const step = longest.value > 45 ? 20 : 10
  return Array.from({ length: Math.floor(longest.value / step) + 1 }, (_, i) => i * step)
})
function across(mm: number): string {
  return `${(Math.max(0, mm) / (longest.value * 1.03)) * 100}%`
}
</script>

<template>
  <table class="w-full">
    <thead class="sr-only">
      <tr>
        <th scope="col">Site</th>
        <th scope="col">Then and now, mm</th>
        <th scope="col">Change, mm</th>
        <th scope="col">Verdict</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="{ site, change, row } in rows" :key="site" :data-site="site">
        <th scope="row" class="py-px pr-3 text-left font-semibold sm:w-28 sm:whitespace-nowrap">
          {{ SITES[site].name }}
          <span class="figure block text-sm leading-4 font-normal whitespace-nowrap text-faded" aria-hidden="true"
            >{{ row.then }} → {{ row.now }}</span
          >
        </th>
        <td class="py-px">
          <div class="relative h-7 min-w-16" :title="`then ${row.then}, now ${row.now} mm; ${row.reason}`">
            <div
              class="absolute top-1.5 h-4 bg-rule"
              :style="{
                left: across(change.then - errorOf(change)),
                width: across(errorOf(change) * 2),
              }"
            />
            <div
              class="absolute top-[13px] h-0.5 bg-sum"
              :style="{
                left: across(Math.min(change.then, change.now)),
                width: across(Math.abs(change.now - change.then)),
              }"
            />
            <div
              class="absolute top-2 size-3 -translate-x-1/2 rounded-full border-2 border-sum bg-sheet"
              :style="{ left: across(change.then) }"
            />
            <div
              class="absolute top-2 size-3 -translate-x-1/2 rounded-full bg-sum"
              :style="{ left: across(change.now) }"
            />
            <span class="sr-only">{{ row.then }}, {{ row.now }}</span>
          </div>
        </td>
        <td
          class="figure py-px pl-3 text-right text-lg"
          :class="isQuiet(change.verdict) ? 'text-faded' : 'font-bold'"
          data-change
        >
          {{ row.difference }}
        </td>
        <td class="py-px pl-3 text-[15px] max-sm:text-sm sm:w-28"><VerdictMark :change="change" short bare /></td>
      </tr>
    </tbody>
    <tfoot aria-hidden="true">
      <tr>
        <td />
        <td>
          <div class="relative h-7 border-t border-contour">
            <template v-for="mm in ticks" :key="mm">
              <span class="absolute top-0 h-1.5 border-l border-contour" :style="{ left: across(mm) }" />
              <span
                class="figure absolute top-2 -translate-x-1/2 text-xs text-faded"
                :class="{ '!translate-x-0': mm === 0 }"
                :style="{ left: across(mm) }"
                >{{ mm }}</span
              >
            </template>
          </div>
        </td>
        <td class="pl-3 text-right text-xs text-faded">mm</td>
        <td class="pl-3 text-xs whitespace-nowrap text-faded">○ then ● now</td>
      </tr>
    </tfoot>
  </table>
</template>
