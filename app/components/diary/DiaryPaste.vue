<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { SlashOrder } from '#core/calendar'
import { readDiary, type DiaryLine } from '#core/trend'
import { formatNumber, type MassUnit } from '#core/units'
import type { WeighInsInput } from '#shared/schemas/following'

/** A diary pasted as two columns, shown line by line before anything is stored: all of it or none. */
const props = defineProps<{ unit: MassUnit; taken: ReadonlySet<string>; busy: boolean; problem: string | null }>()
const emit = defineEmits<{ store: [weighIns: WeighInsInput['weighIns']]; close: [] }>()

const UNITS = [
  { id: 'kg', name: 'kg' },
  { id: 'lb', name: 'lb' },
] as const
const ORDERS = [
  { id: 'day-first', name: '3 April' },
  { id: 'month-first', name: '4 March' },
] as const

const text = ref('')
const order = ref<SlashOrder | null>(null)
const unit = ref<MassUnit>(props.unit)
const leftOut = ref<ReadonlySet<number>>(new Set())
watch(text, () => (leftOut.value = new Set()))

const today = todayHere()
const read = computed(() => readDiary(text.value, { unit: unit.value, today, order: order.value, taken: props.taken }))
const included = computed(() => read.value.lines.filter(({ number, note }) => !leftOut.value.has(number) && !note))
const wrong = computed(() => included.value.filter(({ problem }) => problem !== null))

function said(line: DiaryLine): string {
  return line.value === null ? '' : `${formatNumber(line.value)} ${line.unit}`
}

function store() {
  if (wrong.value.length > 0) return
  emit(
    'store',
    included.value.flatMap(({ day, value, unit: written }) =>
      day && value !== null ? [{ id: uuid(), day, value, unit: written, dry: true, source: 'pasted' as const }] : [],
    ),
  )
}
</script>

<template>
  <form class="grid gap-3" data-paste @submit.prevent="store">
    <label class="grid gap-1">
      <span class="font-semibold">Paste two columns: day and weight</span>
      <textarea
        v-model="text"
        class="field figure min-h-32"
        name="paste"
        :placeholder="'2026-11-20  71,4\n21.11.2026  71.2 kg\n11/22/2026  157 lb'"
      />
    </label>
    <div class="flex flex-wrap items-center gap-x-6 gap-y-2">
      <PressGroup v-model="unit" label="Unit of bare numbers" :options="UNITS">
        <span class="text-[15px]">Bare numbers are</span>
      </PressGroup>
      <PressGroup v-if="read.askOrder" v-model="order" label="Order of slashed dates" :options="ORDERS">
        <span class="text-[15px]">3/4 is</span>
      </PressGroup>
    </div>
    <PastedLines
      v-if="read.lines.length > 0"
      v-model:left-out="leftOut"
      column="Weight"
      :lines="read.lines.map((line) => ({ ...line, said: said(line) }))"
    />
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    <p v-else-if="wrong.length > 0" class="text-[15px]" data-wrong>
      {{ wrong.length === 1 ? 'One line needs' : `${wrong.length} lines need` }} a look before anything is stored: put
      {{ wrong.length === 1 ? 'it' : 'them' }} right above or leave {{ wrong.length === 1 ? 'it' : 'them' }} out.
    </p>
    <div class="flex gap-2">
      <button class="press press-first" :disabled="busy || wrong.length > 0 || included.length === 0">
        Store {{ included.length }} weigh-ins
      </button>
      <button type="button" class="press press-quiet" @click="emit('close')">Leave</button>
    </div>
  </form>
</template>
