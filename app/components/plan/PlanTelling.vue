<script setup lang="ts">
import type { Noises } from '#core/following'
import { waysOfTelling, type PlanLine, type WayOfTelling } from '#core/plan'
import type { FollowedEnd } from '#shared/following'

/** When a plan's pace would be told from no change: how often to measure, how often to read, how many folds. */
const props = defineProps<{ line: PlanLine; start: FollowedEnd; noises: Noises }>()

const CADENCES: Record<number, string> = { 1: 'every week', 2: 'every two weeks', 4: 'every four weeks' }
const COUNTS: Record<number, string> = { 3: 'three', 7: 'seven', 9: 'nine' }

function nameOf({ way, weeksApart }: WayOfTelling): string {
  const often = CADENCES[weeksApart] ?? ''
  switch (way.kind) {
    case 'as-now':
      return `Measured as at the start, ${often}`
    case 'readings':
      return `With four readings a site, ${often}`
    case 'folds':
      return `By the sum of ${COUNTS[way.folds] ?? way.folds} folds, ${often}`
  }
}
const ways = computed(() =>
  waysOfTelling(props.line, props.start, props.noises).map((way) => ({ ...way, name: nameOf(way) })),
)
</script>

<template>
  <details v-if="ways.length > 0" class="text-[15px]" data-telling>
    <summary class="min-h-9 cursor-pointer py-1">
      At this pace told from no change
      <template v-if="ways[2]?.day">
        by about the check-in of <strong>{{ sayDay(ways[2].day) }}</strong>, measured every four weeks
      </template>
      <template v-else>only after more than 27 check-ins, measured every four weeks</template>
    </summary>
    <table class="ruled mt-1">
      <thead>
        <tr>
          <th scope="col">Way of measuring</th>
          <th scope="col" class="right">Check-in</th>
          <th scope="col" class="right">About</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="way in ways" :key="way.name">
          <td class="!py-1">{{ way.name }}</td>
          <td class="figure right !py-1 whitespace-nowrap">{{ way.visits ?? 'over 27' }}</td>
          <td class="right !py-1 whitespace-nowrap">{{ way.day ? sayDay(way.day) : '' }}</td>
        </tr>
      </tbody>
    </table>
    <p class="mt-1 text-sm text-faded">
      Every check-in taken to lie where the plan puts it; chance moves it both ways.
    </p>
  </details>
</template>
