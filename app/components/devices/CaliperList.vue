<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { CAUTION_RULES, type CautionFacts } from '#core/cautions'
import { parseNumber } from '#core/units'
import { caliperFacts } from '#shared/checkin-facts'
import { caliperCheckInput, caliperInput, RESOLUTIONS_MM, type Caliper } from '#shared/schemas/caliper'
import { calipers } from '~/calls'

/** Cautions about a caliper look at nothing else. */
const NOBODY: CautionFacts = {
  sex: 'female',
  ageYears: 30,
  bmi: null,
  percent: null,
  largestFoldMm: null,
  flags: [],
  consent: true,
  guardianConsent: true,
}
const all = ref<Caliper[]>([])
const { problem, tell } = useTelling()
const name = ref('')
const resolutionMm = ref<(typeof RESOLUTIONS_MM)[number]>(0.5)
const checking = ref<string | null>(null)
const deviation = ref('')

/** What a check says against relying on a caliper, as every session with it will say. */
function troubleOf(one: Caliper): string | null {
  const found = CAUTION_RULES.filter(({ code }) => code.startsWith('caliper')).find(({ applies }) =>
    applies({ ...NOBODY, caliper: caliperFacts(one, todayHere()) }),
  )
  return found?.code ?? null
}

function take(action: () => Promise<Caliper[]>): Promise<boolean> {
  return tell(async () => {
    all.value = await action()
  })
}
onMounted(() => take(calipers.list))

async function add() {
  const input = caliperInput.safeParse({ id: uuid(), name: name.value, resolutionMm: resolutionMm.value })
  if (!input.success) return void (problem.value = input.error.issues[0]?.message ?? null)
  if (await take(() => calipers.add(input.data))) name.value = ''
}

async function check(id: string) {
  const deviationMm = parseNumber(deviation.value)
  const checkedOn = todayHere()
  const input = caliperCheckInput.safeParse({ id: uuid(), checkedOn, deviationMm })
  if (!input.success) return void (problem.value = input.error.issues[0]?.message ?? null)
  if (await take(() => calipers.check(id, input.data))) {
    checking.value = null
    deviation.value = ''
  }
}
</script>

<template>
  <section aria-labelledby="calipers" class="grid content-start gap-3">
    <h2 id="calipers" class="border-b-2 border-ink pb-2 text-lg font-bold">Calipers</h2>
    <ul>
      <li v-for="one in all" :key="one.id" class="flex flex-wrap items-center gap-3 border-b border-rule py-2">
        <p class="min-w-0 flex-1">
          <span class="font-semibold">{{ one.name }}</span
          ><span class="text-[15px] text-faded">, marked every {{ one.resolutionMm }} mm</span>
          <span
            class="block text-[15px]"
            :class="troubleOf(one) ? 'font-semibold text-alert' : 'text-faded'"
            :data-trouble="troubleOf(one)"
          >
            {{ one.checkedOn ? `checked ${sayAgo(one.checkedOn)}, ${one.deviationMm} mm off` : 'never checked'
            }}<template v-if="troubleOf(one) === 'caliper-overdue'">: check it</template
            ><template v-if="troubleOf(one) === 'caliper-off'">: have it adjusted</template>
          </span>
        </p>
        <button v-if="checking !== one.id" class="press press-quiet" @click="checking = one.id">Check</button>
        <form v-else class="flex gap-2" @submit.prevent="check(one.id)">
          <input
            v-model="deviation"
            class="field figure max-w-36"
            inputmode="decimal"
            aria-label="Off the block, mm"
            placeholder="off, mm"
          />
          <button class="press">Note</button>
        </form>
      </li>
    </ul>
    <form class="flex gap-2" @submit.prevent="add">
      <input
        v-model="name"
        class="field"
        name="caliperName"
        maxlength="80"
        aria-label="Name of a caliper"
        placeholder="Name of a caliper"
      />
      <ListField
        v-model="resolutionMm"
        class="w-32 shrink-0"
        label="Marked every"
        hidden-label
        name="resolution"
        :options="RESOLUTIONS_MM.map((mm) => ({ id: mm, name: `${mm} mm` }))"
      />
      <button class="press">Add</button>
    </form>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
  </section>
</template>
