<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { CALIPER_KIND_FACTS, CALIPER_KINDS, FAULT_WORDS, faultOf, readBlock, type CaliperKind } from '#core/devices'
import { caliperInput, RESOLUTIONS_MM, type CaliperCheckSent, type RegisteredCaliper } from '#shared/schemas/caliper'
import { formatChange, formatNumber } from '#core/units'
import { calipers } from '~/calls'

useHead({ title: 'Calipers, Oak Pinch' })
const all = ref<RegisteredCaliper[] | null>(null)
const chosenId = ref<string | null>(null)
const checking = ref(false)
const adding = ref(false)
const { problem, tell } = useTelling()
const made = reactive({
  name: '',
  kind: 'spring' as CaliperKind,
  resolutionMm: 0.5 as (typeof RESOLUTIONS_MM)[number],
  jawPressure: '10',
  openingMm: '',
})
const problems = useProblems(['name', 'jawPressure', 'openingMm'])
useOpening(async () => {
  all.value = await calipers.register()
  chosenId.value = all.value[0]?.id ?? null
})
const chosen = computed(() => all.value?.find(({ id }) => id === chosenId.value) ?? null)
const steps = computed(() => chosen.value?.checks.findLast((check) => check.steps.length > 0) ?? null)
const found = computed(() => (steps.value ? readBlock(steps.value.steps) : null))
/** What failed at its last check; it stays on the Floor until that is put right. */
const fault = computed(() =>
  chosen.value && !chosen.value.retired
    ? faultOf({
        deviationMm: chosen.value.deviationMm,
        pressure: chosen.value.pressure ?? null,
        corrected: standing.value !== null,
      })
    : null,
)
const standing = computed(() => chosen.value?.corrections.at(-1)?.correction ?? null)
const take = (action: () => Promise<RegisteredCaliper[]>) =>
  tell(async () => {
    all.value = await action()
  })
const KINDS = CALIPER_KINDS.map((id) => ({ id, name: CALIPER_KIND_FACTS[id].name, note: CALIPER_KIND_FACTS[id].about }))
const wordsOf = ({ offsetMm, gain }: { offsetMm: number; gain: number }) =>
  `${formatChange(offsetMm)} mm at zero${Math.abs(gain - 1) < 0.002 ? '' : `, and ${formatChange((gain - 1) * 100)} % of the fold`}`
const stateOf = ({ retired, checkedOn, deviationMm, corrections }: RegisteredCaliper) => {
  if (retired) return 'put away'
  const checked = checkedOn ? `checked ${sayAgo(checkedOn)}, ${formatChange(deviationMm ?? 0)} mm` : 'never checked'
  return corrections.at(-1)?.correction ? `${checked}, corrected` : checked
}
const number = (text: string) => (text.trim() === '' ? null : Number(text.replace(',', '.')))

async function check(given: CaliperCheckSent) {
  await calipers.check(chosenId.value ?? '', given)
  all.value = await calipers.register()
  checking.value = false
}

async function add() {
  const caliper = {
    id: uuid(),
    name: made.name,
    kind: made.kind,
    resolutionMm: made.resolutionMm,
    jawPressure: number(made.jawPressure),
    openingMm: number(made.openingMm),
  }
  const checked = caliperInput.safeParse(caliper)
  if (!checked.success) {
    const fields = checked.error.issues.map(({ path, message }) => ({ field: String(path[0]), message }))
    problems.problem.value = { message: fields[0]?.message ?? '', fields }
    return
  }
  const kept = await problems.send(async () => {
    await calipers.add(checked.data)
    all.value = await calipers.register()
  })
  if (!kept) return
  chosenId.value = caliper.id
  adding.value = false
  made.name = ''
}
</script>

<template>
  <section
    v-if="all"
    class="grid w-full content-start gap-x-10 gap-y-4 px-4 py-4 max-lg:grid-cols-[minmax(0,1fr)] sm:px-6 lg:grid-cols-[340px_minmax(0,1fr)]"
    aria-label="Calipers"
  >
    <div>
      <ul>
        <li v-for="one in all" :key="one.id">
          <button
            type="button"
            class="block w-full border-b border-l-4 border-b-rule py-2 pl-3 text-left"
            :class="[
              one.id === chosenId ? 'border-l-ink bg-sheet' : 'border-l-transparent',
              one.retired ? 'text-faded' : '',
            ]"
            :aria-pressed="one.id === chosenId"
            @click="((chosenId = one.id), (checking = false), (adding = false))"
          >
            <span class="block font-semibold">{{ one.name }}</span>
            <span class="block text-[15px] text-faded">{{ stateOf(one) }}</span>
          </button>
        </li>
      </ul>
      <button type="button" class="press mt-3" @click="((adding = true), (checking = false))">Add a caliper</button>
    </div>
    <form v-if="adding" class="grid max-w-md content-start gap-4" novalidate @submit.prevent="add">
      <h2 class="text-xl font-bold">A caliper of the studio</h2>
      <TextField
        v-model="made.name"
        label="Name"
        name="name"
        maxlength="80"
        autocomplete="off"
        :problem="problems.byField.value.get('name')"
      />
      <ListField v-model="made.kind" label="Kind" name="kind" :options="KINDS" />
      <ListField
        v-model="made.resolutionMm"
        label="Marked every"
        name="resolution"
        :options="RESOLUTIONS_MM.map((mm) => ({ id: mm, name: `${mm} mm` }))"
      />
      <TextField
        v-model="made.jawPressure"
        label="Jaws press with, g/mm²"
        name="jawPressure"
        inputmode="decimal"
        :problem="problems.byField.value.get('jawPressure')"
      />
      <TextField
        v-model="made.openingMm"
        label="Opens, mm"
        name="openingMm"
        inputmode="decimal"
        :problem="problems.byField.value.get('openingMm')"
      />
      <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
      <div class="flex gap-2">
        <button class="press press-first">Add it</button>
        <button type="button" class="press press-quiet" @click="adding = false">Leave it</button>
      </div>
    </form>
    <div v-else-if="chosen" class="grid min-w-0 content-start gap-4">
      <div class="flex flex-wrap items-start gap-x-6 gap-y-2">
        <div class="min-w-0 flex-1">
          <h2 class="text-2xl font-bold">{{ chosen.name }}</h2>
          <p class="text-faded">
            {{ CALIPER_KIND_FACTS[chosen.kind].name.toLowerCase() }}, marked every {{ chosen.resolutionMm }} mm{{
              chosen.jawPressure ? `, ${chosen.jawPressure} g/mm²` : ''
            }}{{ chosen.openingMm ? `, opens ${chosen.openingMm} mm` : '' }}
          </p>
          <p class="max-w-prose text-[15px] text-faded">{{ CALIPER_KIND_FACTS[chosen.kind].about }}</p>
        </div>
        <button v-if="!chosen.retired && !checking" type="button" class="press press-first" @click="checking = true">
          Check it
        </button>
        <button
          type="button"
          class="press press-quiet"
          @click="take(() => calipers.retire(chosen?.id ?? '', !chosen?.retired))"
        >
          {{ chosen.retired ? 'Take it out again' : 'Put it away' }}
        </button>
      </div>
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
      <CheckForm v-if="checking" class="max-w-md" :caliper="chosen" :send="check" @leave="checking = false" />
      <template v-else>
        <div v-if="standing" class="border-l-4 border-fat pl-3" data-correction>
          <p>
            Corrected since {{ sayDay(chosen.corrections.at(-1)?.fromDay ?? '') }}: it reads {{ wordsOf(standing) }} too
            much, which is taken off every fold’s value. Readings stay as they were read.
          </p>
          <button
            type="button"
            class="press mt-2"
            @click="take(() => calipers.correct(chosen?.id ?? '', { id: uuid(), taken: false }))"
          >
            Stop correcting
          </button>
        </div>
        <div v-else-if="found?.correction && !chosen.retired" class="border-l-4 border-fat pl-3" data-offer>
          <p>
            At its last block check it read {{ wordsOf(found.correction) }} too much, evenly: no more than
            {{ formatNumber(found.fit.restMm, 1) }} mm off that line. Have it adjusted, or take that off from today on.
          </p>
          <button
            type="button"
            class="press mt-2"
            @click="take(() => calipers.correct(chosen?.id ?? '', { id: uuid(), taken: true }))"
          >
            Take it off
          </button>
        </div>
        <p v-else-if="fault" class="border-l-4 border-alert pl-3 font-semibold" data-fault>{{ FAULT_WORDS[fault] }}</p>
        <p v-else-if="found?.adjust" class="border-l-4 border-alert pl-3 font-semibold">
          At its last block check no line explained what it read: have it adjusted before relying on it.
        </p>
        <div v-if="chosen.checks.length > 0" class="grid gap-x-10 gap-y-4 lg:grid-cols-2">
          <figure>
            <figcaption class="border-b border-ink pb-1 font-semibold">Off at its checks, mm</figcaption>
            <DriftChart class="mt-2" :checks="chosen.checks" :name="chosen.name" />
          </figure>
          <div v-if="steps && found">
            <h3 class="border-b border-ink pb-1 font-semibold">By step of the block, {{ sayDay(steps.checkedOn) }}</h3>
            <table class="ruled">
              <thead>
                <tr>
                  <th scope="col">Block, mm</th>
                  <th scope="col" class="right">Read</th>
                  <th scope="col" class="right">Off</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="(one, i) in found.deviations" :key="i">
                  <td class="figure">{{ formatNumber(one.blockMm, 0) }}</td>
                  <td class="figure right">{{ formatNumber(one.blockMm + one.offMm, 1) }}</td>
                  <td class="figure right font-bold" :class="{ 'text-alert': Math.abs(one.offMm) > 0.5 }">
                    {{ formatChange(one.offMm) }}
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
          <div class="lg:col-span-2">
            <h3 class="border-b border-ink pb-1 font-semibold">Check log</h3>
            <ScrollTable label="Check log"
              ><table class="ruled">
                <tbody>
                  <tr v-for="(one, i) in [...chosen.checks].reverse()" :key="i">
                    <td>{{ sayDay(one.checkedOn) }}</td>
                    <td class="figure right">{{ formatChange(one.deviationMm) }} mm</td>
                    <td>
                      {{ one.steps.length > 0 ? `${one.steps.length} steps of the block` : 'deviation only'
                      }}{{ one.pressure ? `, ${one.pressure} g/mm²` : '' }}
                    </td>
                    <td class="text-faded">{{ one.by }}</td>
                  </tr>
                </tbody>
              </table></ScrollTable
            >
          </div>
        </div>
        <p v-else class="text-lg">Never checked. Zero and block first: a caliper that is off is off for everybody.</p>
      </template>
    </div>
  </section>
</template>
