<script setup lang="ts">
import type { Day } from '#core/calendar'
import type { Against, Arrival, PlanLine } from '#core/plan'
import type { Units } from '#core/units'
import type { FollowedRecord } from '#shared/followed-record'
import type { Noises } from '#core/following'
import type { FollowedEnd } from '#shared/following'
import type { ClientHistory } from '#shared/schemas/following'
import type { PlanInput, PlanRecord } from '#shared/schemas/plan'
import { offShown, STANDINGS, TARGET_NAMES, targetShown } from './target-shown'

const LazyPlanChart = defineAsyncComponent(() => import('./PlanChart.vue'))

/** The plan against what happened: where it stands, the line with its band, every check-in since; and setting one. */
const props = defineProps<{
  history: ClientHistory
  record: FollowedRecord
  /** The studio offers energy and macros. */
  energyOffered: boolean
  ends: readonly FollowedEnd[]
  plan: PlanRecord | null
  line: PlanLine | null
  /** The check-in it starts from, and what is held of the noise now. */
  start: FollowedEnd | null
  noises: Noises
  /** Check-ins since the start, oldest first. */
  held: readonly { end: FollowedEnd; against: Against | null }[]
  latest: Against | null
  arrival: Arrival | null
  reached: 'surely' | 'yes' | 'no'
  units: Units
  neutral: boolean
  /** Neutral mode hides this plan, or a caution noted since. */
  hidden: boolean
  /** That caution's sentence; null: none. */
  barred: string | null
  problem: string | null
  save: (plan: PlanInput) => Promise<void>
}>()
const emit = defineEmits<{ end: [id: string] }>()

const another = ref(false)
/** Where the end of the draft was dragged to. */
const dragged = shallowRef<{ day: Day; value: number } | null>(null)
const draft = shallowRef<{ line: PlanLine; start: FollowedEnd } | null>(null)
const setting = computed(() => another.value || !props.plan)
/** The draft while one is typed, else the plan. */
const drawn = computed(() => (setting.value ? (draft.value?.line ?? null) : props.hidden ? null : props.line))
const measured = computed(() => (setting.value ? [] : props.held.flatMap(({ against }) => against ?? [])))
const shown = computed(() => targetShown(drawn.value?.kind ?? 'fat', props.units))
const offOf = (against: Against) => offShown(against, shown.value)

async function saveIt(input: PlanInput) {
  await props.save(input)
  another.value = false
}
</script>

<template>
  <div class="grid flex-1 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_minmax(400px,38%)]" data-plan>
    <section class="border-rule px-4 py-4 sm:px-6 lg:border-r" aria-labelledby="plan-against">
      <h2 id="plan-against" class="font-semibold">
        {{ !setting ? 'The plan against what happened' : draft ? 'The line this would draw' : 'No plan yet' }}
        <span v-if="drawn" class="font-normal text-faded">band: error of the start and spread of paces</span>
      </h2>
      <p v-if="!setting && barred" class="py-4" data-barred>The plan to lose is not shown any more. {{ barred }}</p>
      <p v-else-if="!setting && hidden" class="py-4">Neutral mode shows no plan in percent, fat or weight.</p>
      <template v-else-if="drawn">
        <p v-if="!setting && latest" class="mt-1 text-lg" data-standing>
          <span class="figure text-4xl leading-tight font-bold">{{ offOf(latest) }}</span>
          <span class="ml-1.5 text-faded">{{ shown.changeUnit }} off the plan</span>
          <strong class="ml-3">{{ STANDINGS[latest.standing] }}</strong>
        </p>
        <p v-else-if="!setting" class="mt-1 text-faded">The next check-in shows how it goes.</p>
        <LazyPlanChart
          class="mt-2 h-80"
          :line="drawn"
          :measured="measured"
          :units="units"
          :movable="setting"
          @drag="dragged = $event"
        />
        <ScrollTable v-if="!setting && held.length > 0" label="Check-ins since the start of the plan">
          <table class="ruled mt-3 max-w-3xl">
            <thead>
              <tr>
                <th scope="col">Check-in</th>
                <th scope="col" class="right">Planned, {{ shown.unit }}</th>
                <th scope="col" class="right">Measured</th>
                <th scope="col" class="right">Off the plan</th>
                <th scope="col" class="pl-6">Standing</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="{ end, against } in [...held].reverse()" :key="end.record.id" :data-held="end.record.id">
                <td class="!py-1 whitespace-nowrap">{{ sayDay(end.record.day) }}</td>
                <template v-if="against">
                  <td class="figure right !py-1">{{ shown.value(against.planned) }}</td>
                  <td class="figure right !py-1 font-bold">{{ shown.value(against.measured) }}</td>
                  <td class="figure right !py-1 whitespace-nowrap">
                    {{ offOf(against) }}
                  </td>
                  <td
                    class="!py-1 pl-6 whitespace-nowrap"
                    :class="against.standing === 'on' ? 'text-faded' : 'font-bold'"
                  >
                    {{ against.standing === 'on' ? 'on the plan' : against.standing }}
                  </td>
                </template>
                <td v-else colspan="4" class="!py-1 text-faded">cannot be compared with the start in this unit</td>
              </tr>
            </tbody>
          </table></ScrollTable
        >
      </template>
      <p v-else class="max-w-prose py-4 text-faded">
        {{
          plan && !setting
            ? 'The check-in this plan starts from holds no such figure any more.'
            : 'Set a target and a pace. Each check-in is then compared with the line; off the plan is said only where it is sure.'
        }}
      </p>
    </section>
    <section class="grid content-start gap-4 bg-sheet px-4 py-4 sm:px-6" aria-labelledby="plan-own">
      <h2 id="plan-own" class="font-semibold">{{ setting ? 'Set a plan' : 'The plan' }}</h2>
      <PlanForm
        v-if="setting"
        :history="history"
        :ends="ends"
        :units="units"
        :neutral="neutral"
        :dragged="dragged"
        :save="saveIt"
        @draft="(line, start) => (draft = line && start && { line, start })"
      >
        <template #telling>
          <template v-if="draft">
            <PlanIntake
              v-if="energyOffered && !neutral"
              :line="draft.line"
              :record="record"
              :intakes="history.intakes ?? []"
              :units="units"
            />
            <PlanTelling :line="draft.line" :start="draft.start" :noises="noises" />
          </template>
        </template>
        <button v-if="plan" type="button" class="press press-quiet" @click="another = false">Leave</button>
      </PlanForm>
      <template v-else-if="plan && line && !hidden">
        <dl class="grid grid-cols-[auto_1fr] items-baseline gap-x-6 gap-y-2" data-plan-facts>
          <dt class="text-faded">{{ TARGET_NAMES[plan.kind] }}</dt>
          <dd>
            <span class="figure">{{ shown.value(line.from) }}</span> to
            <span class="figure text-xl font-bold">{{ shown.value(line.to) }}</span> {{ shown.unit }}
          </dd>
          <dt class="text-faded">{{ line.energy ? 'Pace, in the mean' : 'Pace' }}</dt>
          <dd>
            <span class="figure font-bold">{{ shown.value(line.perWeek, 2) }}</span> {{ shown.changeUnit }} a week
          </dd>
          <template v-if="line.energy">
            <dt class="text-faded">Eats</dt>
            <dd data-plan-intake>
              <span class="figure font-bold">{{ Math.round(line.energy.intakeKcal).toLocaleString('en-US') }}</span>
              kcal a day; its course bends by the dynamic model{{
                line.energy.breaks.length > 0 ? ', with weeks at balance' : ''
              }}
            </dd>
          </template>
          <dt class="text-faded">From</dt>
          <dd>{{ sayDay(line.startDay) }}</dd>
          <dt class="text-faded">There about</dt>
          <dd class="font-bold">{{ sayDay(line.endsOn) }}</dd>
          <template v-if="plan.byDay">
            <dt class="text-faded">Wanted by</dt>
            <dd>{{ sayDay(plan.byDay) }}</dd>
          </template>
          <dt class="text-faded">At the pace so far</dt>
          <dd data-arrival>
            <template v-if="reached !== 'no'"
              >reached{{ reached === 'surely' ? '' : ', though not beyond error' }}</template
            >
            <template v-else-if="arrival">
              <strong>{{ sayDay(arrival.on) }}</strong>, between {{ sayDay(arrival.earliest) }} and
              {{ arrival.latest ? sayDay(arrival.latest) : 'a day too far to tell' }}
            </template>
            <template v-else>{{
              latest
                ? 'cannot be told: the change so far is not established, the other way or too slow'
                : 'not measured since'
            }}</template>
          </dd>
          <dt class="text-faded">Set by</dt>
          <dd>{{ plan.by }} on {{ sayDay(plan.at) }}</dd>
        </dl>
        <PlanIntake
          v-if="energyOffered && !neutral && !line.energy && reached === 'no'"
          :line="line"
          :record="record"
          :intakes="history.intakes ?? []"
          :units="units"
        />
        <PlanTelling v-if="start" :line="line" :start="start" :noises="noises" />
        <div class="no-print flex flex-wrap gap-3">
          <button class="press" @click="another = true">Set another</button>
          <button class="press press-quiet" @click="emit('end', plan.id)">End this plan</button>
        </div>
        <p class="text-sm text-faded">
          A plan is a line to hold check-ins against, not a diet: what to eat is for a registered dietitian where local
          rules say so.
        </p>
      </template>
      <div v-else-if="plan" class="no-print flex flex-wrap gap-3">
        <button class="press" @click="another = true">Set another</button>
        <button v-if="barred" class="press press-quiet" @click="emit('end', plan.id)">End this plan</button>
      </div>
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    </section>
  </div>
</template>
