<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { TEM_MARKS } from '#core/error'
import { DRILL_IDS, DRILLS } from '#core/drills'
import { isFold, SITES } from '#core/sites'
import { nextSteps } from '#core/study'
import { formatChange, formatNumber } from '#core/units'
import type { Progress, TrainingPlanInput } from '#shared/schemas/progress'

/** How one assessor stands: repeats by site against the marks, bias, drills, plan, and what comes next. */
const props = defineProps<{ progress: Progress; mayPlan: boolean; plan: (plan: TrainingPlanInput) => Promise<void> }>()
const planning = ref(false)
const people = ref('20')
const byDay = ref('')
const note = ref('')
const problems = useProblems(['people', 'byDay'])
const top = computed(() =>
  Math.max(10, ...props.progress.sites.map(({ now }) => Math.min(20, Math.ceil(now.percentHigh ?? 0)))),
)
const marksOf = (site: Progress['sites'][number]['site']) => TEM_MARKS[isFold(site) ? 'fold' : 'girth']
const say = (value: number | null) => (value === null ? '' : formatNumber(value, 1))
const biasOf = (site: string) => props.progress.bias?.sites.find((one) => one.site === site) ?? null
const drills = computed(() =>
  DRILL_IDS.map((id) => ({
    ...DRILLS[id],
    scores: props.progress.drills.filter(({ drill }) => drill === id).map(({ score }) => score),
  })).filter(({ scores }) => scores.length > 0),
)
/** A small line of seasons: percents from the oldest to the newest. */
function seasons(course: readonly (number | null)[]): string {
  const shown = course.flatMap((value, i) => (value === null ? [] : [[i, value] as const]))
  return shown
    .map(([i, value], k) => `${k === 0 ? 'M' : 'L'}${4 + i * 16} ${24 - Math.min(22, (value / top.value) * 22)}`)
    .join('')
}

async function set() {
  const kept = await problems.send(() =>
    props.plan({
      id: uuid(),
      staffId: props.progress.staffId,
      people: Number(people.value),
      byDay: byDay.value,
      note: note.value,
    }),
  )
  if (kept) planning.value = false
}
</script>

<template>
  <section
    class="grid gap-x-10 gap-y-5 max-lg:grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,5fr)_minmax(0,3fr)]"
    :aria-label="progress.name"
    :data-assessor="progress.staffId"
  >
    <div class="min-w-0">
      <dl class="mb-3 flex flex-wrap gap-x-8 gap-y-2">
        <div
          v-for="one in [
            { name: 'people', value: String(progress.people) },
            { name: 'measurings', value: String(progress.checkins) },
            { name: 'hours', value: formatNumber(progress.hours, 1) },
          ]"
          :key="one.name"
        >
          <dd class="figure text-3xl font-bold">{{ one.value }}</dd>
          <dt class="text-[15px] text-faded">{{ one.name }}</dt>
        </div>
      </dl>
      <ScrollTable v-if="progress.sites.length > 0" label="Repeats by site">
        <table class="ruled" data-progress-sites>
          <thead>
            <tr>
              <th scope="col">Site</th>
              <th scope="col" class="right">Error, %</th>
              <th scope="col" class="w-56">interval, on 0 to {{ top }} %</th>
              <th scope="col">by season</th>
              <th v-if="progress.bias" scope="col" class="right">Bias, %</th>
              <th scope="col" class="right">Repeats</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in progress.sites" :key="one.site" :data-site="one.site">
              <th scope="row">{{ SITES[one.site].name }}</th>
              <td
                class="figure right text-lg font-bold"
                :class="{ 'text-alert': one.standing === 'beyond' && one.sure }"
              >
                {{ say(one.now.percent) }}
              </td>
              <td>
                <IntervalBar
                  v-if="one.now.percent !== null"
                  :value="one.now.percent"
                  :low="one.now.percentLow ?? 0"
                  :high="one.now.percentHigh ?? 0"
                  :from="0"
                  :to="top"
                  :marks="[marksOf(one.site).trained, marksOf(one.site).learning]"
                  :tone="isFold(one.site) ? 'sum' : 'girth'"
                  :label="`${say(one.now.percent)} %, between ${say(one.now.percentLow)} and ${say(one.now.percentHigh)}`"
                />
              </td>
              <td>
                <svg
                  viewBox="0 0 92 28"
                  class="h-7 w-24"
                  role="img"
                  :aria-label="`by season: ${one.course.map((value) => (value === null ? 'none' : say(value))).join(', ')}`"
                >
                  <path d="M0 25H92" class="stroke-rule" />
                  <path
                    :d="seasons(one.course)"
                    class="stroke-ink"
                    fill="none"
                    stroke-width="1.6"
                    stroke-linejoin="round"
                  />
                </svg>
              </td>
              <td v-if="progress.bias" class="figure right">
                {{ biasOf(one.site) ? formatChange(biasOf(one.site)?.percent ?? 0) : '' }}
              </td>
              <td class="figure right text-faded">{{ Math.round(one.repeats) }}</td>
            </tr>
          </tbody>
        </table>
      </ScrollTable>
      <p class="mt-2 text-sm text-faded">
        Dashed: {{ TEM_MARKS.fold.trained }} and {{ TEM_MARKS.fold.learning }} % for folds,
        {{ TEM_MARKS.girth.trained }} and {{ TEM_MARKS.girth.learning }} % for girths.
        <template v-if="progress.bias"
          >Bias against {{ progress.bias.reference }}, {{ sayDay(progress.bias.day) }}.</template
        >
      </p>
    </div>
    <div class="grid content-start gap-5">
      <div>
        <h3 class="border-b-2 border-ink pb-1 text-lg font-bold">Next</h3>
        <ul class="mt-2 grid gap-2" data-next>
          <li v-for="step in nextSteps(progress.sites)" :key="step">{{ step }}</li>
        </ul>
      </div>
      <div>
        <h3 class="border-b-2 border-ink pb-1 text-lg font-bold">Plan of training</h3>
        <template v-if="progress.plan">
          <p class="mt-2">
            <span class="figure text-2xl font-bold">{{ progress.plan.done }}</span> of {{ progress.plan.people }} people
            by {{ sayDay(progress.plan.byDay) }}
          </p>
          <RulerProgress
            :value="progress.plan.done"
            :full="progress.plan.people"
            :label="`${progress.plan.done} of ${progress.plan.people} people`"
            class="mt-1"
          />
          <p v-if="progress.plan.note" class="text-faded">{{ progress.plan.note }}</p>
        </template>
        <p v-else class="mt-2 text-faded">None set.</p>
        <button v-if="mayPlan && !planning" type="button" class="press mt-2" @click="planning = true">
          {{ progress.plan ? 'Set another' : 'Set one' }}
        </button>
        <form v-if="planning" class="mt-2 grid gap-3" novalidate data-plan-form @submit.prevent="set">
          <div class="grid grid-cols-2 gap-3">
            <TextField
              v-model="people"
              label="People"
              name="people"
              inputmode="numeric"
              :problem="problems.byField.value.get('people')"
            />
            <TextField
              v-model="byDay"
              label="By"
              name="byDay"
              type="date"
              :problem="problems.byField.value.get('byDay')"
            />
          </div>
          <TextField v-model="note" label="Note" name="note" maxlength="500" autocomplete="off" />
          <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
          <div class="flex gap-2">
            <button class="press press-first">Set it</button>
            <button type="button" class="press press-quiet" @click="planning = false">Leave it</button>
          </div>
        </form>
      </div>
      <div v-if="drills.length > 0">
        <h3 class="border-b-2 border-ink pb-1 text-lg font-bold">Drills</h3>
        <ul>
          <li
            v-for="one in drills"
            :key="one.id"
            class="grid grid-cols-[8rem_1fr] items-center gap-3 border-b border-rule py-1"
          >
            <span>{{ one.name }}</span>
            <span class="block h-10"><LearningCurve class="h-full" :drill="one.id" :scores="one.scores" /></span>
          </li>
        </ul>
      </div>
      <a :href="`/api/progress/${progress.staffId}/record`" class="press justify-self-start" download
        >Print the record</a
      >
    </div>
  </section>
</template>
