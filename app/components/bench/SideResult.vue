<script setup lang="ts">
import { TEM_MARKS } from '#core/error'
import { isFold, SITES, type SiteId } from '#core/sites'
import { biasWords, type SideSite } from '#core/study'
import { formatChange, formatNumber } from '#core/units'

/** What a side-by-side study says, one pen at a time against the reference, and one site close. */
const props = defineProps<{
  sites: readonly SideSite[]
  pens: readonly { id: string; name: string }[]
  referenceName: string
}>()
const penId = ref(props.pens[0]?.id ?? '')
const chosen = ref<SiteId | null>(props.sites[0]?.site ?? null)
const rows = computed(() =>
  props.sites.map((site) => ({ ...site, pen: site.pens.find((one) => one.penId === penId.value) ?? null })),
)
const shown = computed(() => rows.value.find(({ site }) => site === chosen.value) ?? null)
const penName = computed(() => props.pens.find(({ id }) => id === penId.value)?.name ?? '')
const percent = (ratio: number) => 100 * (ratio - 1)
const reach = computed(() =>
  Math.min(
    30,
    Math.max(
      10,
      ...rows.value.flatMap(({ pen }) => (pen?.ratio ? [-percent(pen.ratio.low), percent(pen.ratio.high)] : [])),
    ),
  ),
)
</script>

<template>
  <div class="grid gap-x-8 gap-y-4 max-lg:grid-cols-[minmax(0,1fr)] lg:grid-cols-[3fr_2fr]">
    <div class="min-w-0">
      <PressGroup
        v-if="pens.length > 1"
        v-model="penId"
        class="mb-2"
        label="Who is compared with the reference"
        :options="pens.map(({ id, name }) => ({ id, name }))"
      />
      <ScrollTable label="Bias by site">
        <table class="ruled" data-sides>
          <thead>
            <tr>
              <th scope="col">Site</th>
              <th scope="col" class="right">Bias, %</th>
              <th scope="col" class="w-56">
                interval, on −{{ formatNumber(reach, 0) }} to +{{ formatNumber(reach, 0) }} %
              </th>
              <th scope="col" class="right">TEM between, %</th>
              <th scope="col" class="right">ICC (2,1)</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="{ site, pen, between, intraclass } in rows" :key="site" :data-site="site">
              <th scope="row">
                <button
                  type="button"
                  class="min-h-10 w-full py-1 text-left text-base font-semibold text-ink"
                  :class="{ 'underline underline-offset-4': site === chosen }"
                  :aria-pressed="site === chosen"
                  @click="chosen = site"
                >
                  {{ SITES[site].name }}
                </button>
              </th>
              <td class="figure right text-lg font-bold">
                {{ pen?.ratio ? formatChange(percent(pen.ratio.value)) : '' }}
              </td>
              <td>
                <IntervalBar
                  v-if="pen?.ratio"
                  :value="percent(pen.ratio.value)"
                  :low="percent(pen.ratio.low)"
                  :high="percent(pen.ratio.high)"
                  :from="-reach"
                  :to="reach"
                  :marks="[0]"
                  :tone="isFold(site) ? 'sum' : 'girth'"
                  :label="`between ${formatChange(percent(pen.ratio.low))} and ${formatChange(percent(pen.ratio.high))} %`"
                />
              </td>
              <td
                class="figure right"
                :class="{
                  'font-bold': (between?.percent ?? 0) > TEM_MARKS[isFold(site) ? 'fold' : 'girth'].betweenAssessors,
                }"
              >
                {{ between?.percent == null ? '' : formatNumber(between.percent, 1) }}
              </td>
              <td class="figure right">
                {{ intraclass ? formatNumber(intraclass.value, 2) : '' }}
                <span v-if="intraclass" class="block text-sm text-faded"
                  >{{ formatNumber(intraclass.low, 2) }} to {{ formatNumber(intraclass.high, 2) }}</span
                >
              </td>
            </tr>
          </tbody>
        </table>
      </ScrollTable>
    </div>
    <section v-if="shown?.pen" aria-live="polite" class="min-w-0">
      <h3 class="border-b border-ink pb-1 font-semibold">
        {{ SITES[shown.site].name }}: {{ penName }} and {{ referenceName }}
      </h3>
      <p class="my-2">{{ penName }} {{ biasWords(shown.pen.ratio) }}</p>
      <AgreementPlot
        v-if="shown.pen.agreement"
        :agreement="shown.pen.agreement"
        :pairs="shown.pen.pairs"
        :unit="isFold(shown.site) ? 'mm' : 'cm'"
        :label="`Differences of ${penName} and ${referenceName} at ${SITES[shown.site].name.toLowerCase()}`"
      />
      <p v-else class="text-faded">Limits of agreement take three people at least.</p>
      <p v-if="shown.pen.agreement?.grows" class="mt-1 text-[15px]">
        The spread grows with the fold: percents, not millimetres, are what stays alike.
      </p>
    </section>
  </div>
</template>
