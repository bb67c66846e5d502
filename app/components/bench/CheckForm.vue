<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { BLOCK_STEPS_MM, PRESSURE_RANGE, readBlock, type BlockStep } from '#core/devices'
import { caliperCheckInput, type CaliperCheckSent, type RegisteredCaliper } from '#shared/schemas/caliper'
import { formatChange, formatNumber, parseNumber } from '#core/units'

/** A check against the block: zero and its steps, and the pressure where it was measured. */
const props = defineProps<{ caliper: RegisteredCaliper; send: (check: CaliperCheckSent) => Promise<void> }>()
const emit = defineEmits<{ leave: [] }>()
const steps = ref(BLOCK_STEPS_MM.map((mm) => ({ block: String(mm), read: '' })))
const pressure = ref('')
const problem = ref<string | null>(null)
const { problem: refused, tell, busy } = useTelling()
const filled = computed(() => steps.value.filter(({ read }) => read.trim() !== ''))
const taken = computed<BlockStep[]>(() =>
  filled.value.map(({ block, read }) => ({ blockMm: parseNumber(block), readMm: parseNumber(read) })),
)
const found = computed(() =>
  taken.value.every(({ blockMm, readMm }) => Number.isFinite(blockMm) && Number.isFinite(readMm))
    ? readBlock(taken.value)
    : null,
)
const pressureOff = computed(() => {
  const value = pressure.value.trim() === '' ? NaN : parseNumber(pressure.value)
  return value < PRESSURE_RANGE.low || value > PRESSURE_RANGE.high
})
const off = (place: number) => {
  const step = steps.value[place]
  const value = step && step.read.trim() !== '' ? parseNumber(step.read) - parseNumber(step.block) : NaN
  return Number.isFinite(value) ? formatChange(value) : ''
}

async function keep() {
  const check = {
    id: uuid(),
    checkedOn: todayHere(),
    steps: taken.value,
    pressure: pressure.value.trim() === '' ? null : parseNumber(pressure.value),
  }
  const checked = caliperCheckInput.safeParse(check)
  problem.value = checked.success ? null : (checked.error.issues[0]?.message ?? null)
  if (checked.success) await tell(() => props.send(check))
}
</script>

<template>
  <form class="grid gap-3" novalidate data-check-form @submit.prevent="keep">
    <table class="ruled">
      <thead>
        <tr>
          <th scope="col">Block, mm</th>
          <th scope="col">It read, mm</th>
          <th scope="col" class="right">Off</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(step, i) in steps" :key="i">
          <td class="!py-1">
            <input
              v-model="step.block"
              class="field figure max-w-24"
              inputmode="decimal"
              :aria-label="`Step ${i + 1} of the block, mm`"
            />
          </td>
          <td class="!py-1">
            <input
              v-model="step.read"
              class="field figure max-w-28"
              inputmode="decimal"
              autocomplete="off"
              :aria-label="`Read at ${step.block} mm`"
              :name="`read-${step.block}`"
            />
          </td>
          <td class="figure right !py-1" :class="{ 'font-bold text-alert': Math.abs(parseNumber(off(i)) || 0) > 0.5 }">
            {{ off(i) }}
          </td>
        </tr>
      </tbody>
    </table>
    <label class="flex flex-wrap items-center gap-3">
      <span class="font-semibold">Pressure, g/mm²</span>
      <input v-model="pressure" name="pressure" class="field figure max-w-28" inputmode="decimal" placeholder="10" />
      <span class="text-[15px] text-faded"
        >once a year; {{ PRESSURE_RANGE.low }} to {{ PRESSURE_RANGE.high }} passes</span
      >
    </label>
    <p v-if="pressureOff" class="border-l-4 border-alert pl-3" data-pressure-off>
      Outside {{ PRESSURE_RANGE.low }} to {{ PRESSURE_RANGE.high }} g/mm²: this caliper fails until its spring is put
      right.
    </p>
    <p
      v-if="found"
      class="border-l-4 pl-3"
      :class="found.adjust ? 'border-alert' : 'border-rule'"
      aria-live="polite"
      data-finding
    >
      {{
        Math.abs(found.worstMm) <= 0.5
          ? 'Within half a millimetre everywhere.'
          : found.adjust
            ? `Off by up to ${formatNumber(Math.abs(found.worstMm), 1)} mm, and not along a line: have it adjusted.`
            : `Off by up to ${formatNumber(Math.abs(found.worstMm), 1)} mm, evenly enough to be taken off.`
      }}
    </p>
    <p v-if="problem ?? refused" role="alert" class="font-semibold text-alert">{{ problem ?? refused }}</p>
    <div class="flex gap-2">
      <button class="press press-first min-h-11" :disabled="busy">Note the check</button>
      <button type="button" class="press press-quiet min-h-11" @click="emit('leave')">Leave it</button>
    </div>
  </form>
</template>
