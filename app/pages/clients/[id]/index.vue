<script setup lang="ts">
import { ageInYears, siteChanges } from '#core/composition'
import { formatChange, formatHeight, formatMass, formatMassChange, formatNumber } from '#core/units'
import type { ClientHistory } from '#shared/schemas/checkin'
import { composedHistory } from '~/components/client/history-facts'
import { useMe } from '~/stores/me'

const LazyTrendChart = defineAsyncComponent(() => import('~/components/chart/TrendChart.vue'))

const route = useRoute()
const store = useMe()
const loaded = shallowRef<ClientHistory | null>(null)

onMounted(async () => {
  try {
    loaded.value = await $fetch<ClientHistory>(`/api/clients/${String(route.params.id)}/history`)
  } catch (error) {
    showError({ statusCode: problemOf(error).status || 503, message: problemOf(error).message })
  }
})
useHead({ title: () => `${loaded.value?.client.name ?? 'Client'}, Oak Pinch` })

const client = computed(() => loaded.value?.client ?? null)
const history = computed(() => (loaded.value ? composedHistory(loaded.value) : []))
const finished = computed(() => history.value.filter(({ facts }) => facts.finishedAt !== null))
const open = computed(() => history.value.find(({ facts }) => facts.finishedAt === null) ?? null)
const now = computed(() => finished.value.at(-1) ?? null)
const then = computed(() => finished.value.at(-2) ?? null)
const since = computed(() => (then.value ? sayDay(then.value.facts.startedAt) : null))
const sumName = computed(() => now.value?.facts.protocol.sumName ?? 'Sum')
const estimate = computed(() => {
  const value = now.value?.result.estimate
  return value && 'percent' in value ? value : null
})
const refusal = computed(() => {
  const value = now.value?.result.estimate
  return value?.status === 'refused' ? value.reason : null
})
const changes = computed(() => (now.value && then.value ? siteChanges(then.value.result, now.value.result) : []))

function difference(of: (result: NonNullable<typeof now.value>['result']) => number | null | undefined): number | null {
  const after = now.value ? of(now.value.result) : null
  const before = then.value ? of(then.value.result) : null
  return typeof after === 'number' && typeof before === 'number' ? after - before : null
}

const figures = computed(() => {
  const result = now.value?.result
  const { units } = store
  const fat = difference(({ masses }) => masses?.fatKg)
  const lean = difference(({ masses }) => masses?.leanKg)
  const sum = difference(({ sumMm }) => sumMm)
  const weight = difference(({ weightKg }) => weightKg)
  return [
    {
      name: 'Fat',
      colour: 'text-fat',
      unit: units.mass,
      value: result?.masses ? formatMass(result.masses.fatKg, units) : null,
      change: fat === null ? null : formatMassChange(fat, units),
    },
    {
      name: 'Lean',
      colour: 'text-lean',
      unit: units.mass,
      value: result?.masses ? formatMass(result.masses.leanKg, units) : null,
      change: lean === null ? null : formatMassChange(lean, units),
    },
    {
      name: sumName.value,
      colour: 'text-sum',
      unit: 'mm',
      value: typeof result?.sumMm === 'number' ? formatNumber(result.sumMm, 1) : null,
      change: sum === null ? null : formatChange(sum, 1),
    },
    {
      name: 'Weight',
      colour: 'text-weight',
      unit: units.mass,
      value: typeof result?.weightKg === 'number' ? formatMass(result.weightKg, units) : null,
      change: weight === null ? null : formatMassChange(weight, units),
    },
  ]
})
</script>

<template>
  <div v-if="client" class="flex flex-1 flex-col">
    <div class="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-4 py-3 sm:px-6">
      <h1 class="text-3xl font-bold">{{ client.name }}</h1>
      <p class="text-faded">
        {{ ageInYears(client.birthDate, new Date().toISOString())
        }}<template v-if="client.heightCm">, {{ formatHeight(client.heightCm, store.units) }}</template> ·
        {{ client.usualSide }} side<template v-if="now"> · {{ now.facts.protocol.name.toLowerCase() }}</template>
        <span v-if="client.archived" class="font-semibold text-alert"> · archived</span>
      </p>
      <div class="no-print ml-auto flex gap-2">
        <NuxtLink :to="`/clients/${client.id}/edit`" class="press press-quiet">Change</NuxtLink>
        <NuxtLink v-if="open" :to="`/measure/${open.facts.id}`" class="press press-first">Go on measuring</NuxtLink>
        <NuxtLink v-else-if="!client.archived" :to="`/clients/${client.id}/measure`" class="press press-first"
          >Measure</NuxtLink
        >
      </div>
    </div>

    <template v-if="now">
      <dl class="grid grid-cols-2 border-b border-rule bg-sheet sm:grid-cols-3 lg:grid-cols-5 [&>div+div]:border-l">
        <HeadlineFigure v-for="figure in figures" :key="figure.name" v-bind="figure" :since="since" />
        <HeadlineFigure
          name="Fat, percent"
          colour="text-fat"
          unit="%"
          :value="estimate ? formatNumber(estimate.percent, 1) : null"
          :change="null"
          :since="since"
        >
          <span v-if="estimate?.band" class="mt-0.5 block text-[15px] text-faded">
            usually
            <span class="figure text-lg">{{ formatNumber(estimate.band.low, 1) }}</span> to
            <span class="figure text-lg">{{ formatNumber(estimate.band.high, 1) }}</span>
          </span>
        </HeadlineFigure>
      </dl>
      <p v-if="refusal" class="border-b border-rule px-4 py-2 sm:px-6"><strong>No percent.</strong> {{ refusal }}</p>
      <p v-for="caution in estimate?.cautions ?? []" :key="caution.code" class="border-b border-rule px-4 py-2 sm:px-6">
        <strong>Caution.</strong> {{ caution.sentence }} The sum of folds needs no equation.
      </p>
      <div class="grid flex-1 lg:grid-cols-[1fr_minmax(440px,42%)]">
        <section aria-label="Over time" class="border-rule px-4 py-4 sm:px-6 lg:border-r">
          <h2 class="mb-1 font-semibold">Over time</h2>
          <LazyTrendChart
            v-if="finished.length > 1"
            :history="finished"
            :units="store.units"
            :sum-name="sumName"
            class="h-[440px] w-full"
          />
          <p v-else class="text-faded">A line needs a second check-in.</p>
        </section>
        <section aria-label="Site by site" class="bg-sheet px-4 py-4 sm:px-6">
          <h2 class="mb-2 font-semibold">
            Site by site <span class="font-normal text-faded">mm, since last time</span>
          </h2>
          <SiteChanges
            v-if="then"
            :changes="changes"
            :then="sayDay(then.facts.startedAt)"
            :now="sayDay(now.facts.startedAt)"
          />
          <p v-else class="text-faded">Changes show from the second check-in on.</p>
          <p v-if="client.notes" class="mt-4 border-l-4 border-rule pl-3 text-[15px]">{{ client.notes }}</p>
        </section>
      </div>
    </template>
    <div v-else class="max-w-xl px-4 py-8 sm:px-6">
      <p class="text-lg">{{ open ? 'The first check-in is under way.' : 'Not measured yet.' }}</p>
      <p v-if="!client.consentOn" class="mt-2 text-faded">
        Consent is not on record. Talk it through, then note it under
        <NuxtLink :to="`/clients/${client.id}/edit`" class="underline">Change</NuxtLink>.
      </p>
      <p v-if="client.notes" class="mt-4 border-l-4 border-rule pl-3">{{ client.notes }}</p>
    </div>
    <section
      v-if="history.length > 0"
      aria-label="Check-ins"
      class="overflow-x-auto border-t border-rule px-4 py-4 sm:px-6"
    >
      <h2 class="mb-2 font-semibold">Check-ins</h2>
      <CheckinTable :history="history" :units="store.units" :sum-name="sumName" />
    </section>
  </div>
  <p v-else class="p-6 text-faded">Fetching the record.</p>
</template>
