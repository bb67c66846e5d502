<script setup lang="ts">
import { TEM_MARKS } from '#core/error'
import { isFold, SITES } from '#core/sites'
import { repeatWords, type RepeatSite } from '#core/study'
import { formatNumber } from '#core/units'

/** What a repeat study says, site by site, against the marks of the trade. */
const props = defineProps<{ sites: readonly RepeatSite[] }>()
const top = computed(() =>
  Math.max(10, ...props.sites.map(({ visit }) => Math.min(25, Math.ceil(visit?.percentHigh ?? 0)))),
)
const said = (value: number | null | undefined) => (value === null || value === undefined ? '' : formatNumber(value, 1))
const marksOf = (site: RepeatSite['site']) => TEM_MARKS[isFold(site) ? 'fold' : 'girth']
</script>

<template>
  <ScrollTable label="Repeats by site">
    <table class="ruled" data-repeats>
      <thead>
        <tr>
          <th scope="col">Site</th>
          <th scope="col" class="right">
            <abbr title="Technical error of measurement, which is Dahlberg’s error, of a turn’s value">TEM</abbr>, %
          </th>
          <th scope="col" class="w-64">
            interval, on 0 to {{ top }} %
            <span class="sr-only">with marks at 5 and 7.5 % for folds, 1 and 1.5 % for girths</span>
          </th>
          <th scope="col" class="right">One reading, %</th>
          <th scope="col" class="right">The mark, %</th>
          <th scope="col">Says</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in sites" :key="one.site" :data-site="one.site">
          <th scope="row">{{ SITES[one.site].name }}</th>
          <td class="figure right text-lg font-bold">{{ said(one.visit?.percent) }}</td>
          <td>
            <IntervalBar
              v-if="one.visit && one.visit.percent !== null"
              :value="one.visit.percent"
              :low="one.visit.percentLow ?? 0"
              :high="one.visit.percentHigh ?? 0"
              :from="0"
              :to="top"
              :marks="[marksOf(one.site).trained, marksOf(one.site).learning]"
              :tone="isFold(one.site) ? 'sum' : 'girth'"
              :label="`${said(one.visit.percent)} %, between ${said(one.visit.percentLow)} and ${said(one.visit.percentHigh)}`"
            />
          </td>
          <td class="figure right">{{ said(one.reading?.percent) }}</td>
          <td class="figure right">{{ one.markShare === null ? '' : said(one.markShare * 100) }}</td>
          <td class="min-w-48 text-[15px]">{{ repeatWords(one) }}</td>
        </tr>
      </tbody>
    </table>
  </ScrollTable>
</template>
