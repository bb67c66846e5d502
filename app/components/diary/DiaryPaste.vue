<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { readDiary, type DiaryLine, type SlashOrder } from '#core/trend'
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

function toggle(number: number) {
  const next = new Set(leftOut.value)
  if (!next.delete(number)) next.add(number)
  leftOut.value = next
}

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
    <div
      v-if="read.lines.length > 0"
      class="max-h-72 overflow-y-auto"
      tabindex="0"
      role="region"
      aria-label="Lines read"
    >
      <table class="ruled">
        <thead>
          <tr>
            <th scope="col">Line</th>
            <th scope="col">Day</th>
            <th scope="col" class="right">Weight</th>
            <th scope="col"><span class="sr-only">What is wrong</span></th>
            <th scope="col"><span class="sr-only">Leave out</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="line in read.lines"
            :key="line.number"
            :data-line="line.number"
            :class="{ 'text-faded line-through': leftOut.has(line.number) }"
          >
            <td class="figure !py-1 text-faded">{{ line.number }}</td>
            <td class="!py-1 whitespace-nowrap">{{ line.day ? sayDay(line.day) : line.text.slice(0, 24) }}</td>
            <td class="figure right !py-1 whitespace-nowrap">{{ said(line) }}</td>
            <td class="!py-1 pl-3 text-[15px]">
              <span v-if="line.problem" class="font-semibold text-alert">{{ line.problem }}</span>
              <span v-else-if="line.note" class="text-faded">{{ line.note }}</span>
            </td>
            <td class="right !py-1">
              <button
                v-if="line.problem"
                type="button"
                class="min-h-9 text-[15px] underline underline-offset-4"
                @click="toggle(line.number)"
              >
                {{ leftOut.has(line.number) ? 'put back' : 'leave out' }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
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
