<script setup lang="ts">
import { wayBack, type PlanLine } from '#core/plan'
import type { Units } from '#core/units'
import { targetShown } from './target-shown'

/** A plan laid back from a day that does not move: latest start, what a late one asks for, the table week by week. */
const props = defineProps<{ line: PlanLine; by: string; units: Units }>()

const BREAKS = [
  { id: 0, name: 'none' },
  { id: 6, name: 'after every 6 weeks' },
  { id: 8, name: 'after every 8 weeks' },
]
const breakEvery = ref(0)
const shown = computed(() => targetShown(props.line.kind, props.units))
const way = computed(() =>
  wayBack({
    by: props.by,
    start: props.line.startDay,
    from: props.line.from,
    to: props.line.to,
    perWeek: props.line.perWeek,
    breakEvery: breakEvery.value || null,
  }),
)
</script>

<template>
  <div class="grid gap-2" data-back>
    <p class="text-[15px]" :class="{ 'font-semibold': way.late }" data-in-time>
      {{
        way.late
          ? `Too late at this pace: with a week’s slack it had to start by ${sayDay(way.latest)}.`
          : `In time: with a week’s slack it has to start by ${sayDay(way.latest)}.`
      }}
    </p>
    <ListField v-model="breakEvery" class="max-w-xs" label="Weeks at balance" name="planBreaks" :options="BREAKS" />
    <details class="text-[15px]">
      <summary class="min-h-9 cursor-pointer py-1">
        Week by week, <span class="figure">{{ Math.ceil(way.weeks) }}</span> weeks; and if it starts late
      </summary>
      <table class="ruled">
        <thead>
          <tr>
            <th scope="col">Starts late by</th>
            <th scope="col">On</th>
            <th scope="col" class="right">Pace that still arrives</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="start in way.starts" :key="start.weeksLate" :data-late="start.weeksLate">
            <td class="!py-1">{{ start.weeksLate }} {{ start.weeksLate === 1 ? 'week' : 'weeks' }}</td>
            <td class="!py-1 whitespace-nowrap">{{ sayDay(start.day) }}</td>
            <td class="figure right !py-1">
              {{
                start.perWeek === null ? 'no time left' : `${shown.value(start.perWeek, 2)} ${shown.changeUnit} a week`
              }}
            </td>
          </tr>
        </tbody>
      </table>
      <div class="mt-2 max-h-64 overflow-y-auto" tabindex="0" role="region" aria-label="The plan week by week">
        <table class="ruled">
          <tbody>
            <tr v-for="row in way.table" :key="row.week">
              <td class="figure !py-1">{{ row.week }}</td>
              <td class="!py-1">{{ sayDay(row.day) }}</td>
              <td class="figure right !py-1 font-bold">{{ shown.value(row.planned) }} {{ shown.unit }}</td>
              <td class="!py-1 pl-3 text-faded">{{ row.atBalance ? 'at balance' : '' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </details>
  </div>
</template>
