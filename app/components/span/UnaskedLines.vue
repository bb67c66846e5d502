<script setup lang="ts">
import { UNASKED_FIGURES, type SaidUnasked, type UnaskedLine } from '#core/following'

/** Since the start, over twelve weeks and since last time: what is said of each figure, without being asked. */
const props = defineProps<{ said: SaidUnasked | null; neutral: boolean }>()

const SINCE: Record<UnaskedLine['since'], string> = {
  start: 'Since the start',
  'twelve-weeks': 'Last twelve weeks',
  'last-time': 'Since last time',
}
/** On a phone. */
const SHORT: Record<UnaskedLine['since'], string> = {
  start: 'Start',
  'twelve-weeks': '12 weeks',
  'last-time': 'Last time',
}
const NAMES = { fat: 'Fat', lean: 'Lean', sum: 'Sum', weight: 'Weight' } as const
const figures = computed(() => UNASKED_FIGURES.filter((figure) => !props.neutral || figure === 'sum'))
</script>

<template>
  <ScrollTable label="Since the start, over twelve weeks, since last time">
    <table v-if="said && said.lines.length > 0" class="ruled tight" data-unasked>
      <thead>
        <tr>
          <th scope="col"><span class="sr-only">Since</span></th>
          <th v-for="figure in figures" :key="figure" scope="col">{{ NAMES[figure] }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in said.lines" :key="line.since" :data-since="line.since">
          <th scope="row" class="!py-1 text-left font-semibold whitespace-nowrap">
            <span class="max-sm:hidden">{{ SINCE[line.since] }}</span
            ><span class="sm:hidden">{{ SHORT[line.since] }}</span>
            <span class="block text-xs font-normal text-faded">{{ sayDay(line.from) }}</span>
          </th>
          <td v-for="figure in figures" :key="figure" class="!py-1" :data-unasked-figure="figure">
            <VerdictMark
              v-if="line.changes[figure]"
              class="text-[15px] max-sm:[&>svg]:hidden"
              :change="line.changes[figure]"
              short
            />
            <span v-else class="text-faded">–</span>
          </td>
        </tr>
      </tbody>
    </table>
  </ScrollTable>
</template>

<style scoped>
.tight :is(th, td) {
  padding-right: 6px;
}
</style>
