<script setup lang="ts">
import { factorOf, FACTORS, FACTOR_RANGE, WORK, type Activity, type WorkId } from '#core/energy'
import { parseNumber } from '#core/units'

/** How active a client is: the day's work with hours of training, or a factor in plain words. */
const props = defineProps<{ activity: Activity | null; busy: boolean }>()
const emit = defineEmits<{ choose: [activity: Activity] }>()

const work = ref<WorkId>(props.activity?.kind === 'hours' ? props.activity.work : 'seated')
const hours = ref(props.activity?.kind === 'hours' ? String(props.activity.trainingHours) : '')
const problem = ref<string | null>(null)
const factors = [
  { id: 0, name: 'not by a factor', note: 'by work and training, above' },
  ...FACTORS.map(({ factor, name, note }) => ({ id: factor as number, name: `${name}, ${factor}`, note })),
]
const chosen = computed(() => (props.activity ? factorOf(props.activity).value : null))

function byHours() {
  const trainingHours = parseNumber(hours.value)
  problem.value =
    hours.value.trim() === '' || !(trainingHours >= 0 && trainingHours <= 40)
      ? 'Hours of training a week, from 0 to 40.'
      : null
  if (!problem.value) emit('choose', { kind: 'hours', work: work.value, trainingHours })
}
</script>

<template>
  <form class="grid gap-3" data-activity @submit.prevent="byHours">
    <div class="grid items-start gap-3 sm:grid-cols-[1fr_9rem_auto]">
      <ListField
        v-model="work"
        label="The day’s work"
        name="work"
        :options="WORK.map(({ id, name, note }) => ({ id, name, note }))"
      />
      <TextField
        v-model="hours"
        label="Training, h a week"
        name="trainingHours"
        class="figure"
        inputmode="decimal"
        autocomplete="off"
        :problem="problem ?? undefined"
      />
      <button class="press sm:mt-7" :disabled="busy">Take these</button>
    </div>
    <div class="grid gap-1">
      <ListField
        label="Or a factor for the whole day"
        name="factor"
        :options="factors"
        :model-value="activity?.kind === 'factor' ? activity.factor : 0"
        @update:model-value="$event && emit('choose', { kind: 'factor', factor: $event })"
      />
      <p class="text-sm text-faded">
        <template v-if="chosen !== null"
          >Now: resting times <span class="figure font-bold text-ink">{{ chosen.toFixed(2) }}</span>, give or take
          0.1.</template
        >
        <template v-else
          >Nobody has said yet: no day can be predicted ({{ FACTOR_RANGE.low }} to {{ FACTOR_RANGE.high }}).</template
        >
      </p>
    </div>
  </form>
</template>
