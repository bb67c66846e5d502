<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { parseIntake } from '#core/energy'
import type { IntakeRecord, IntakesInput } from '#shared/schemas/following'

/** What was eaten, a day at a time: typed or pasted. */
const props = defineProps<{
  intakes: readonly IntakeRecord[]
  busy: boolean
  /** Stores days; gives whether it worked. */
  add: (given: IntakesInput['intakes']) => Promise<boolean>
}>()
const emit = defineEmits<{ strike: [id: string] }>()
const problem = defineModel<string | null>('problem', { required: true })
const SHOWN = 60

const today = todayHere()
const day = ref(today)
const text = ref('')
const pasting = ref(false)
const newest = computed(() => [...props.intakes].reverse().slice(0, SHOWN))
const taken = computed(() => new Set(props.intakes.map((one) => one.day)))

async function addTyped() {
  const parsed = parseIntake(text.value)
  if ('problem' in parsed) return void (problem.value = parsed.problem)
  if (await props.add([{ id: uuid(), day: day.value, kcal: parsed.kcal, source: 'typed' }])) text.value = ''
}
async function storePasted(given: IntakesInput['intakes']) {
  if (await props.add(given)) pasting.value = false
}
</script>

<template>
  <div class="grid gap-3" data-intakes>
    <div class="flex items-baseline">
      <h3 class="font-semibold">
        Logged intake <span class="font-normal text-faded">{{ intakes.length }} days kept</span>
      </h3>
      <button v-if="!pasting" class="ml-auto min-h-9 underline underline-offset-4" @click="pasting = true">
        Paste a log
      </button>
    </div>
    <IntakePaste
      v-if="pasting"
      :taken="taken"
      :busy="busy"
      :problem="problem"
      @store="storePasted"
      @close="((pasting = false), (problem = null))"
    />
    <template v-else>
      <form class="grid grid-cols-[1fr_1fr_auto] items-end gap-2" @submit.prevent="addTyped">
        <label class="grid gap-1">
          <span class="text-[15px] font-semibold">Day</span>
          <input v-model="day" type="date" name="intakeDay" class="field" :max="today" required />
        </label>
        <label class="grid gap-1">
          <span class="text-[15px] font-semibold">Eaten, kcal</span>
          <input v-model="text" name="intake" class="field figure" inputmode="numeric" autocomplete="off" />
        </label>
        <button class="press press-first min-h-11" :disabled="busy">Add</button>
      </form>
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
      <div
        v-if="newest.length > 0"
        class="max-h-56 overflow-y-auto"
        tabindex="0"
        role="region"
        aria-label="Days of intake, the newest first"
      >
        <table class="ruled">
          <tbody>
            <tr v-for="one in newest" :key="one.id" :data-intake="one.day">
              <td class="!py-1">{{ sayDay(one.day) }}</td>
              <td class="figure right !py-1 font-bold">{{ one.kcal.toLocaleString('en-US') }}</td>
              <td class="!py-1 pl-3 text-sm text-faded">{{ one.source }}</td>
              <td class="right !py-1">
                <button
                  class="min-h-9 text-[15px] underline underline-offset-4"
                  :aria-label="`Strike ${sayDay(one.day)}`"
                  @click="emit('strike', one.id)"
                >
                  strike
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </div>
</template>
