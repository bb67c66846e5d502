<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { v7 as uuid } from 'uuid'
import type { FileLook, TablePlanInput } from '#shared/schemas/data'
import { data as calls } from '~/data-calls'

/** One file on its way in: looked through, put right, then all of it or nothing. */
const props = defineProps<{ file: { id: string; name: string } }>()
const emit = defineEmits<{ leave: []; done: [said: string] }>()

const found = ref<FileLook | null>(null)
/** What somebody has said of the table, until an answer says how it was understood. */
const wanted = shallowRef<TablePlanInput | null>(null)
const importId = uuid()
const look = useDataJob((job) => {
  found.value = job.result as FileLook
})
const store = useDataJob(() => {
  emit(
    'done',
    archive.value ? `${props.file.name} is merged.` : `${props.file.name}: ${parts.value.join(' and ')} are in.`,
  )
})
onMounted(() => look.begin(() => calls.look(props.file.id, null)))
watchDebounced(wanted, (plan) => plan && look.begin(() => calls.look(props.file.id, plan)), { debounce: 150 })

function change(plan: TablePlanInput) {
  // Shown as said at once; the answer follows.
  if (found.value?.table) found.value = { ...found.value, table: { ...found.value.table, plan } }
  wanted.value = plan
}

const looked = computed(() => found.value?.looked ?? null)
const archive = computed(() => found.value?.archive ?? null)
const busy = computed(() => look.running.value || store.running.value)
const brings = computed(() =>
  archive.value
    ? archive.value.tables.some(({ fresh }) => fresh > 0)
    : looked.value !== null && looked.value.problemCount === 0 && looked.value.checkins + looked.value.weighIns > 0,
)
const parts = computed(() => {
  const { checkins = 0, weighIns = 0 } = looked.value ?? {}
  return [
    ...(checkins > 0 ? [`${checkins.toLocaleString('en')} ${checkins === 1 ? 'check-in' : 'check-ins'}`] : []),
    ...(weighIns > 0 ? [`${weighIns.toLocaleString('en')} ${weighIns === 1 ? 'weight' : 'weights'}`] : []),
  ]
})
const action = computed(() => {
  if (archive.value) return 'Merge what is new'
  return brings.value ? `Bring in ${parts.value.join(' and ')}` : 'Bring in'
})
const TYPES = {
  table: 'a table',
  readings: 'readings, one a row',
  fhir: 'a FHIR bundle',
  archive: 'an archive',
} as const
const sentence = computed(() => store.sentence.value ?? look.sentence.value)
</script>

<template>
  <div class="grid content-start gap-4" data-bring-in>
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b-2 border-ink pb-2">
      <h2 class="text-lg font-bold break-all">{{ file.name }}</h2>
      <span v-if="found" class="text-faded">{{ TYPES[found.type] }}</span>
      <span class="flex-1" />
      <button type="button" class="press press-quiet min-h-9" @click="emit('leave')">Leave it</button>
    </div>
    <TablePlan v-if="found?.table && looked" :table="found.table" :problems="looked.problems" @change="change" />
    <JobLine v-if="look.job.value && look.running.value" :job="look.job.value" @stop="look.stop" />
    <p v-if="sentence" role="alert" class="font-semibold text-alert">{{ sentence }}</p>
    <LookedAt
      v-if="looked && !look.running.value"
      :looked="looked"
      :sideways="found?.table?.plan.layout === 'columns'"
    />
    <ArchiveLook v-if="archive" :archive="archive" />
    <div
      v-if="found"
      class="sticky bottom-0 -mx-4 flex flex-wrap items-center gap-4 border-t border-rule bg-sheet px-4 py-3 sm:-mx-6 sm:px-6"
    >
      <JobLine v-if="store.job.value && store.running.value" class="flex-1" :job="store.job.value" @stop="store.stop" />
      <template v-else>
        <button
          type="button"
          class="press press-first"
          :disabled="busy || !brings"
          data-store
          @click="store.begin(() => calls.store(file.id, importId, found?.table?.plan ?? null))"
        >
          {{ action }}
        </button>
        <span class="text-[15px] text-faded">{{
          archive
            ? 'All or nothing. A merged archive is not taken back: make a backup first.'
            : 'All or nothing. It can be taken back until something is built on it.'
        }}</span>
      </template>
    </div>
  </div>
</template>
