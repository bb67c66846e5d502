<script setup lang="ts">
import { CONDITIONS } from '#core/composition'
import type { Protocol } from '#core/protocols'
import { policyOf } from '#core/readings'
import { SITES, type SiteId } from '#core/sites'
import type { Units } from '#core/units'

/** A blank log sheet that fills its page: a row a site, a box a reading; with last time beside it where there is one. */
const props = defineProps<{
  protocol: Protocol
  units: Units
  /** For whom; without: a line to write the name on. */
  client?: { name: string; side: string }
  /** Values as they are said, by site, and the weight. */
  last?: { day: string; values: Partial<Record<SiteId, string>>; weight: string | null }
}>()
const rows = computed(() => props.protocol.sites.map((id) => ({ site: SITES[id], last: props.last?.values[id] ?? '' })))
/** Longer sets say no more than the names, so that they keep to one page. */
const MOST_SAID = 9
const columns = computed(() => Math.max(2, policyOf(props.protocol.policy).base) + 1)
</script>

<template>
  <article class="paper-sheet" aria-label="Blank log sheet">
    <header class="flex flex-wrap items-baseline gap-x-6 gap-y-2 border-b-2 border-ink pb-1">
      <h2 v-if="client" class="text-2xl font-bold">{{ client.name }}</h2>
      <h2 v-else class="flex flex-1 items-baseline gap-3 text-2xl font-bold">
        Name <span class="min-w-56 flex-1 border-b border-rule" />
      </h2>
      <p class="ml-auto">{{ protocol.name }}, {{ client ? `${client.side} side` : 'side ____________' }}</p>
    </header>
    <p class="mt-3 grid grid-cols-2 gap-x-10 gap-y-3 sm:grid-cols-4">
      <span class="blank">Day, time</span><span class="blank">Measured by</span><span class="blank">Caliper</span>
      <span class="blank"
        >Weight, {{ units.mass }}<template v-if="last?.weight"> (last {{ last.weight }})</template></span
      >
    </p>
    <table class="mt-3 w-full border-collapse">
      <thead>
        <tr class="border-b-2 border-ink text-left">
          <th scope="col" class="py-1">Site</th>
          <th v-if="last" scope="col" class="w-24 text-right">{{ last.day }}</th>
          <th v-for="column in columns" :key="column" scope="col" class="w-24 pl-3">{{ column }}.</th>
          <th scope="col" class="w-24 pl-3">Value</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.site.id" class="border-b border-rule">
          <th scope="row" class="py-1 pr-3 text-left font-semibold">
            {{ row.site.name }}
            <span v-if="rows.length <= MOST_SAID" class="block text-xs font-normal text-faded">{{
              row.site.where
            }}</span>
          </th>
          <td v-if="last" class="figure text-right text-faded">{{ row.last }}</td>
          <td v-for="column in columns + 1" :key="column" class="border-l border-rule" />
        </tr>
      </tbody>
    </table>
    <p class="mt-3 text-sm">
      Strike a wrong reading through and write the new one beside it. Folds in mm, girths in {{ units.length }}.
    </p>
    <ul class="mt-2 grid grid-cols-2 gap-x-8 gap-y-1 text-sm">
      <li v-for="condition in CONDITIONS" :key="condition.id">
        <strong>{{ condition.label }}:</strong> {{ condition.options.map(({ name }) => `☐ ${name}`).join('  ') }}
      </li>
    </ul>
    <p class="mt-3">Note</p>
    <div class="mt-6 border-b border-rule" />
    <div class="mt-8 border-b border-rule" />
  </article>
</template>

<style scoped>
.paper-sheet {
  display: flex;
  flex-direction: column;
  min-height: calc(100dvh - 220px);
}
.paper-sheet table {
  flex: 1;
  /* A row takes its share of what the page has left. */
  height: 1px;
}
.paper-sheet tbody tr {
  height: 36px;
}
.blank {
  border-bottom: 1px solid var(--rule);
  padding-bottom: 18px;
  font-size: 14px;
}
@media print {
  @page {
    margin: 12mm;
  }
  .paper-sheet {
    /* What the lower of the two usual papers, Letter, has left. */
    min-height: 240mm;
  }
}
</style>
