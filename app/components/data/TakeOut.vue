<script setup lang="ts">
import type { ExportInput } from '#shared/schemas/data'
import { data as calls } from '~/data-calls'

/** Everything a studio typed leaves in open formats, whole, at any time. */
const FORMATS = [
  {
    id: 'workbook',
    name: 'Workbook',
    file: '.xlsx',
    what: 'Check-ins, readings, results with their errors, weights, plans: a sheet each.',
  },
  {
    id: 'readings',
    name: 'Readings',
    file: '.csv',
    what: 'One reading a row, as it was read. Comes back in here as the same check-ins.',
  },
  { id: 'fhir', name: 'Health records', file: '.json', what: 'A FHIR R4 bundle, for a doctor’s or a clinic’s system.' },
  { id: 'calendar', name: 'Calendar', file: '.ics', what: 'Every visit ever booked, without a word about bodies.' },
  {
    id: 'archive',
    name: 'Archive',
    file: '.zip',
    what: 'The whole studio with its photographs, to move or to keep. Guard it: it opens everything.',
  },
] as const satisfies readonly { id: ExportInput['format']; name: string; file: string; what: string }[]

const { options, find } = useClientOptions()
const clientId = ref<string | null>(null)
const link = useTemplateRef<HTMLAnchorElement>('link')
const { job, running, sentence, begin, stop } = useDataJob(() => nextTick(() => link.value?.click()))
onMounted(() => find(''))

const take = (format: ExportInput['format']) =>
  begin(() => calls.takeOut({ format, clientId: format === 'archive' ? null : clientId.value }))
</script>

<template>
  <section class="grid content-start gap-3" aria-labelledby="out" data-take-out>
    <h2 id="out" class="border-b-2 border-ink pb-2 text-lg font-bold">Take out</h2>
    <PickField v-model="clientId" label="Of whom" name="outOf" none="everybody" :options="options" @find="find" />
    <ul>
      <li
        v-for="one in FORMATS"
        :key="one.id"
        class="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 border-b border-rule py-2"
        :data-format="one.id"
      >
        <p>
          <strong>{{ one.name }}</strong> <span class="figure text-sm text-faded">{{ one.file }}</span>
          <span class="block text-[15px] text-faded">{{ one.what }}</span>
        </p>
        <button
          type="button"
          class="press press-quiet"
          :disabled="running || (one.id === 'archive' && clientId !== null)"
          :aria-label="`Make ${one.name.toLowerCase()}`"
          @click="take(one.id)"
        >
          Make
        </button>
      </li>
    </ul>
    <JobLine v-if="job && running" :job="job" @stop="stop" />
    <p v-else-if="job?.state === 'done'" class="text-[15px]" data-made>
      <a ref="link" class="underline underline-offset-4" :href="calls.fileOf(job.id)" :download="job.fileName">{{
        job.fileName
      }}</a>
      is made; it can be fetched for two hours.
    </p>
    <p v-else-if="job?.state === 'stopped'" class="text-[15px] text-faded">Given up.</p>
    <p v-if="sentence" role="alert" class="font-semibold text-alert">{{ sentence }}</p>
  </section>
</template>
