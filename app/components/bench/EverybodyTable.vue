<script setup lang="ts">
import { TEM_MARKS } from '#core/error'
import { isFold, SITES } from '#core/sites'
import { formatChange, formatNumber } from '#core/units'
import type { Progress } from '#shared/schemas/progress'

/** Every assessor of the studio in a line, for the lead: who has measured how much, and where each is farthest off. */
const props = defineProps<{ all: readonly Progress[] }>()
const chosen = defineModel<string>({ required: true })
const rows = computed(() =>
  props.all.map((one) => {
    const within = one.sites.filter(({ standing }) => standing === 'trained').length
    const biases = one.bias?.sites.map(({ percent }) => percent) ?? []
    const mean = biases.length === 0 ? null : biases.reduce((sum, percent) => sum + percent, 0) / biases.length
    return { ...one, within, worst: one.sites[0] ?? null, mean }
  }),
)
const say = (value: number) => `${formatChange(value)} %`
</script>

<template>
  <ScrollTable label="Everybody who measures">
    <table class="ruled" data-everybody>
      <thead>
        <tr>
          <th scope="col">Assessor</th>
          <th scope="col" class="right">People</th>
          <th scope="col" class="right">Sites within their mark</th>
          <th scope="col">Farthest off</th>
          <th scope="col" class="right">Bias, mean</th>
          <th scope="col" class="right">Plan</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in rows" :key="one.staffId" :class="{ 'bg-sheet': one.staffId === chosen }">
          <th scope="row">
            <button
              type="button"
              class="min-h-9 text-left"
              :class="{ 'underline underline-offset-4': one.staffId === chosen }"
              :aria-pressed="one.staffId === chosen"
              @click="chosen = one.staffId"
            >
              {{ one.name }}
            </button>
          </th>
          <td class="figure right">{{ one.people }}</td>
          <td class="figure right">{{ one.sites.length === 0 ? '' : `${one.within} of ${one.sites.length}` }}</td>
          <td>
            <template v-if="one.worst">
              {{ SITES[one.worst.site].name.toLowerCase() }}
              <span class="figure">{{ formatNumber(one.worst.now.percent ?? 0, 1) }} %</span>
              <span class="text-faded"> of {{ TEM_MARKS[isFold(one.worst.site) ? 'fold' : 'girth'].trained }}</span>
            </template>
            <span v-else class="text-faded">nothing repeated yet</span>
          </td>
          <td class="figure right">{{ one.mean === null ? '' : say(one.mean) }}</td>
          <td class="figure right">{{ one.plan ? `${one.plan.done} of ${one.plan.people}` : '' }}</td>
        </tr>
      </tbody>
    </table>
  </ScrollTable>
</template>
