<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { METHODS, OTHER_METHODS, refusal, type OtherMethod } from '#core/study/methods'
import { formatNumber } from '#core/units'
import { otherInput, type OtherRecord } from '#shared/schemas/other-method'
import { methods } from '~/bench-calls'

/** What other methods said of this client: each device a line of its own, never one history with the folds. */
const { followed } = useFollowed()
const { clientId, neutral } = followed
const all = ref<OtherRecord[]>([])
const adding = ref(false)
const { problem, tell } = useTelling()
const typed = reactive({
  method: 'bia-hand-foot' as OtherMethod,
  device: '',
  day: todayHere(),
  percent: '',
  told: {} as Record<string, string>,
  conditions: {} as Record<string, string>,
  note: '',
})
const faults = ref<Record<string, string>>({})
onMounted(() => tell(async () => (all.value = await methods.list(clientId))))
const facts = computed(() => METHODS[typed.method])
watch(
  () => typed.method,
  () =>
    Object.assign(typed, {
      told: {},
      conditions: {},
      device: all.value.findLast((one) => one.method === typed.method)?.device ?? '',
    }),
)
const refused = computed(() => refusal(typed.method, typed.conditions))
const number = (text: string) => (text.trim() === '' ? NaN : Number(text.replace(',', '.')))
const lines = computed(() => {
  const byDevice = new Map<string, OtherRecord[]>()
  for (const one of all.value) {
    const key = `${one.method} ${one.device}`
    byDevice.set(key, [...(byDevice.get(key) ?? []), one])
  }
  return [...byDevice.values()].map((own) => ({
    method: METHODS[(own[0] as OtherRecord).method],
    device: own[0]?.device ?? '',
    own: [...own].reverse(),
  }))
})
/** The maker's own numbers and how somebody was prepared, in words. */
const toldOf = (record: OtherRecord) =>
  Object.entries(record.told).map(([id, value]) => {
    const known = METHODS[record.method].told.find((one) => one.id === id)
    return `${known?.name.toLowerCase() ?? id} ${formatNumber(value, 1)}${known?.unit ? ` ${known.unit}` : ''}`
  })
const answersOf = (record: OtherRecord) =>
  Object.entries(record.conditions).flatMap(([id, answer]) => {
    const asked = METHODS[record.method].asks.find((one) => one.id === id)
    return id === 'implant' ? [] : (asked?.answers.find((one) => one.id === answer)?.name ?? [])
  })

async function add() {
  const given = {
    id: uuid(),
    ...typed,
    percent: number(typed.percent),
    told: Object.fromEntries(
      Object.entries(typed.told).flatMap(([id, text]) => (text.trim() === '' ? [] : [[id, number(text)]])),
    ),
    conditions: { ...typed.conditions },
  }
  const checked = otherInput.safeParse(given)
  faults.value = checked.success
    ? {}
    : Object.fromEntries(checked.error.issues.map(({ path, message }) => [path.join('.'), message]))
  if (!checked.success) return
  if (!(await tell(async () => (all.value = await methods.add(clientId, given))))) return
  Object.assign(typed, { percent: '', told: {}, note: '', conditions: {} })
  adding.value = false
}
</script>

<template>
  <section
    class="grid gap-x-10 gap-y-4 px-4 py-4 sm:px-6 lg:grid-cols-[minmax(0,1fr)_380px]"
    aria-label="Other methods"
  >
    <div class="grid content-start gap-5">
      <p class="max-w-prose text-faded">
        What a scale, a tank or an X-ray said. Each device is a line of its own: its numbers are never joined with the
        folds’, and a change counts only within one line.
      </p>
      <p v-if="neutral" class="text-lg">Neutral mode: no percent where the client may look.</p>
      <template v-else>
        <div v-for="line in lines" :key="line.method.id + line.device" :data-line="line.method.id">
          <h3 class="border-b border-ink pb-1 font-semibold">{{ line.method.name }}: {{ line.device }}</h3>
          <table class="ruled">
            <thead>
              <tr>
                <th scope="col">Day</th>
                <th scope="col" class="right">Fat, %</th>
                <th scope="col">As told by its maker</th>
                <th scope="col"><span class="sr-only">Strike</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in line.own" :key="one.id">
                <td>{{ sayDay(one.day) }}</td>
                <td class="figure right text-lg font-bold">{{ formatNumber(one.percent, 1) }}</td>
                <td class="text-[15px]">
                  {{ [...toldOf(one), ...answersOf(one), one.note].filter(Boolean).join(', ') }}
                  <span class="text-faded">{{ one.by }}</span>
                </td>
                <td class="right">
                  <button
                    type="button"
                    class="min-h-9 text-sm text-faded underline underline-offset-4"
                    :aria-label="`Strike ${sayDay(one.day)}`"
                    @click="tell(async () => (all = await methods.strike(clientId, one.id)))"
                  >
                    strike
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="lines.length === 0" class="text-lg">Nothing by another method yet.</p>
      </template>
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    </div>
    <form v-if="adding" class="grid content-start gap-3" novalidate data-method-form @submit.prevent="add">
      <ListField
        v-model="typed.method"
        label="Method"
        name="method"
        :options="OTHER_METHODS.map((id) => ({ id, name: METHODS[id].name }))"
      />
      <p class="text-[15px] text-faded">{{ facts.about }} {{ facts.prepare }}</p>
      <fieldset v-for="asked in facts.asks" :key="asked.id">
        <legend class="font-semibold">{{ asked.name }}</legend>
        <div class="mt-1 flex flex-wrap gap-2">
          <button
            v-for="answer in asked.answers"
            :key="answer.id"
            type="button"
            class="press min-h-11 px-3"
            :class="typed.conditions[asked.id] === answer.id ? 'press-first' : 'press-quiet'"
            :aria-pressed="typed.conditions[asked.id] === answer.id"
            @click="typed.conditions[asked.id] = answer.id"
          >
            {{ answer.name }}
          </button>
        </div>
      </fieldset>
      <p v-if="refused" role="alert" class="border-l-4 border-alert pl-3 font-semibold text-alert" data-refused>
        {{ refused }}
      </p>
      <template v-else>
        <TextField
          v-model="typed.device"
          label="Device"
          name="device"
          maxlength="80"
          autocomplete="off"
          :problem="faults.device"
        />
        <div class="grid grid-cols-2 gap-3">
          <TextField
            v-model="typed.percent"
            label="Fat, %"
            name="percent"
            inputmode="decimal"
            autocomplete="off"
            :problem="faults.percent"
          />
          <TextField v-model="typed.day" label="Day" name="day" type="date" :problem="faults.day" />
        </div>
        <details v-if="facts.told.length > 0">
          <summary class="min-h-9 cursor-pointer text-faded">The maker’s own numbers, kept as told</summary>
          <div class="mt-2 grid grid-cols-2 gap-3">
            <TextField
              v-for="one in facts.told"
              :key="one.id"
              :model-value="typed.told[one.id] ?? ''"
              :label="one.unit ? `${one.name}, ${one.unit}` : one.name"
              :name="one.id"
              inputmode="decimal"
              :problem="faults[`told.${one.id}`]"
              @update:model-value="typed.told[one.id] = String($event)"
            />
          </div>
        </details>
        <TextField v-model="typed.note" label="Note" name="note" maxlength="500" autocomplete="off" />
        <div class="flex gap-2">
          <button class="press press-first">Note it</button>
          <button type="button" class="press press-quiet" @click="adding = false">Leave it</button>
        </div>
      </template>
    </form>
    <div v-else><button type="button" class="press press-first" @click="adding = true">Note a measurement</button></div>
  </section>
</template>
