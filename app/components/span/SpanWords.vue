<script setup lang="ts">
import { readSpan, summariseSpan, type Span, type Worthwhile } from '#core/following'
import type { Units } from '#core/units'
import type { CheckinRecord } from '#shared/schemas/checkin'

/** The span in words: what changed, what the rules make of it and why; the coach keeps, edits or discards it. */
const props = defineProps<{
  span: Span
  record: CheckinRecord
  units: Units
  neutral: boolean
  worthwhile: Worthwhile
  /** A loss is planned and allowed. */
  losing: boolean
  problem: string | null
  /** Keeps words with the check-in, or takes them back; gives whether it worked. */
  keep: (words: string | null) => Promise<boolean>
}>()

const summary = computed(() => summariseSpan(props.span, props.units, props.neutral, props.worthwhile))
const readings = computed(() => (props.neutral ? [] : readSpan(props.span, props.units, sayDay, props.losing)))
const proposed = computed(() => [...summary.value, ...readings.value.map(({ sentence }) => sentence)].join(' '))
const draft = ref<string | null>(null)
watch(
  () => props.record.id,
  () => (draft.value = null),
)

async function put(words: string | null) {
  if (await props.keep(words)) draft.value = null
}
</script>

<template>
  <div class="border-l-4 border-lean pl-4" data-words>
    <form v-if="draft !== null" class="grid gap-2" @submit.prevent="put(draft)">
      <label class="font-semibold" for="words">The reading of {{ sayDay(record.day) }}</label>
      <textarea id="words" v-model="draft" class="field min-h-32" maxlength="4000" />
      <div class="flex gap-2">
        <button class="press press-first">Keep with this check-in</button>
        <button type="button" class="press press-quiet" @click="draft = null">Leave</button>
      </div>
    </form>
    <template v-else>
      <p v-if="record.keptWords" data-kept>{{ record.keptWords }}</p>
      <template v-else>
        <p>{{ summary.join(' ') }}</p>
        <ul v-if="readings.length > 0" class="mt-2 grid gap-1.5">
          <li v-for="reading in readings" :key="reading.code" :data-reading="reading.code">
            <strong class="font-semibold">{{ reading.sentence }}</strong>
            <span class="block text-sm text-faded">because: {{ reading.facts.join('; ') }}</span>
          </li>
        </ul>
      </template>
      <div class="no-print mt-2 flex gap-5 text-[15px]">
        <button class="min-h-9 underline underline-offset-4" @click="draft = record.keptWords ?? proposed">
          {{ record.keptWords ? 'Edit' : 'Edit and keep' }}
        </button>
        <button v-if="!record.keptWords" class="min-h-9 underline underline-offset-4" @click="put(proposed)">
          Keep as it is
        </button>
        <button v-else class="min-h-9 underline underline-offset-4" @click="put(null)">Discard</button>
        <span v-if="record.keptWords" class="self-center text-sm text-faded">kept with {{ sayDay(record.day) }}</span>
      </div>
    </template>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
  </div>
</template>
