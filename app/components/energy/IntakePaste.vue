<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { SlashOrder } from '#core/calendar'
import { readIntakes } from '#core/energy'
import type { IntakesInput } from '#shared/schemas/following'

/** A log pasted as two columns, shown line by line before anything is stored: all of it or none. */
const props = defineProps<{ taken: ReadonlySet<string>; busy: boolean; problem: string | null }>()
const emit = defineEmits<{ store: [intakes: IntakesInput['intakes']]; close: [] }>()

const ORDERS = [
  { id: 'day-first', name: '3 April' },
  { id: 'month-first', name: '4 March' },
] as const
const text = ref('')
const order = ref<SlashOrder | null>(null)
const leftOut = ref<ReadonlySet<number>>(new Set())
watch(text, () => (leftOut.value = new Set()))

const today = todayHere()
const read = computed(() => readIntakes(text.value, { today, order: order.value, taken: props.taken }))
const included = computed(() => read.value.lines.filter(({ number, note }) => !leftOut.value.has(number) && !note))
const wrong = computed(() => included.value.filter(({ problem }) => problem !== null))

function store() {
  if (wrong.value.length > 0) return
  emit(
    'store',
    included.value.flatMap(({ day, kcal }) =>
      day && kcal !== null ? [{ id: uuid(), day, kcal, source: 'pasted' as const }] : [],
    ),
  )
}
</script>

<template>
  <form class="grid gap-3" data-paste @submit.prevent="store">
    <label class="grid gap-1">
      <span class="font-semibold">Paste two columns: day and kcal</span>
      <textarea
        v-model="text"
        class="field figure min-h-28"
        name="paste"
        :placeholder="'2026-11-20  2150\n21.11.2026  2,310 kcal\n11/22/2026  9000 kJ'"
      />
    </label>
    <PressGroup v-if="read.askOrder" v-model="order" label="Order of slashed dates" :options="ORDERS">
      <span class="text-[15px]">3/4 is</span>
    </PressGroup>
    <PastedLines
      v-if="read.lines.length > 0"
      v-model:left-out="leftOut"
      column="kcal"
      :lines="
        read.lines.map((line) => ({ ...line, said: line.kcal === null ? '' : line.kcal.toLocaleString('en-US') }))
      "
    />
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    <p v-else-if="wrong.length > 0" class="text-[15px]" data-wrong>
      Lines that need a look before anything is stored: {{ wrong.length }}. Put them right above or leave them out.
    </p>
    <div class="flex gap-2">
      <button class="press press-first" :disabled="busy || wrong.length > 0 || included.length === 0">
        Store {{ included.length }} days
      </button>
      <button type="button" class="press press-quiet" @click="emit('close')">Leave</button>
    </div>
  </form>
</template>
