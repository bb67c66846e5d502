<script setup lang="ts">
import { MOST_LEARNT, PROMISE } from '#core/following'
import { UNCHANGED, type KindLooked } from '#core/trials'
import type { LookingWorker } from '~/workers/looking'

useHead({ title: 'Is it real? Oak Pinch' })

const PACES = [0.1, 0.2, 0.5].map((id) => ({ id, name: `${id} kg` }))
const CADENCES = [
  { id: 1, name: 'week' },
  { id: 2, name: '2 weeks' },
  { id: 4, name: '4 weeks' },
]
/** Ways of measuring that differ for everybody alike. */
const WORLDS = UNCHANGED.filter(({ world, client, size, weightNoise }) => world && !client && !size && !weightNoise)
const worlds = [{ id: '', name: 'as well as is assumed' }, ...WORLDS.map(({ name }) => ({ id: name, name }))]
/** Clients of each kind, and check-ins of each. */
const CLIENTS = 40
const LOOKS = 18

const pace = ref(0.2)
const cadence = ref(1)
const world = ref('')
const draw = ref(1)
const seen = shallowRef<{ unchanged: KindLooked; losing: KindLooked } | null>(null)
const told = ref<{ pace: number; cadence: number } | null>(null)
const { run, running } = useWorker<LookingWorker>(
  () => new Worker(new URL('../../workers/looking.ts', import.meta.url), { type: 'module' }),
)

async function look() {
  const [kgAWeek, weeksApart, seed] = [pace.value, cadence.value, draw.value]
  const measured = WORLDS.find(({ name }) => name === world.value)?.world
  seen.value = await run((worker) =>
    worker.look({
      kgAWeek,
      weeksApart,
      looks: LOOKS,
      clients: CLIENTS,
      seed,
      ...(measured ? { world: { ...measured } } : {}),
    }),
  )
  told.value = { pace: kgAWeek, cadence: weeksApart }
  draw.value += 1
}
</script>

<template>
  <div class="grid flex-1 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
    <article class="max-w-prose px-4 py-4 sm:px-6" aria-label="The method">
      <h2 class="mb-1 text-xl font-bold">How a change is judged</h2>
      <p>
        Nobody reads a fold the same way twice. Marks are found anew, skin holds more water on one day than on another,
        and a coach looks at every check-in: sooner or later chance alone shows a change. So two explanations of all
        check-ins are compared.
      </p>
      <dl class="mt-3 grid gap-3">
        <div>
          <dt class="font-semibold">Nothing changed</dt>
          <dd>
            The readings lie about one level, spread by measuring error. Some of that error lasts for weeks, a hand
            drifts a little, a year has its season.
          </dd>
        </div>
        <div>
          <dt class="font-semibold">Something changed</dt>
          <dd>
            The same error, around a course: straight lines from slow to fast, lines that bend, and wandering paths. So
            a client who lost and then held is drawn level since.
          </dd>
        </div>
        <div>
          <dt class="font-semibold">The odds, and what they are called</dt>
          <dd>
            How much likelier all check-ins are if something changed. About 18 times in a large studio and 20 for a
            coach alone is <strong>real</strong>, if no single fold carries it and the interval lies on one side. It
            stays real while the odds are 2 and over. From 3 there is <strong>some sign</strong>, down to a third it is
            <strong>too early</strong> to say, below there is <strong>no sign</strong> of change. Where a change that
            matters can be ruled out as well, the client is <strong>steady</strong>.
          </dd>
        </div>
        <div>
          <dt class="font-semibold">The error is learnt</dt>
          <dd>
            From all other clients’ check-ins up to the day of the look, first of all those measured by the same hand:
            how wide the error is, whether it lasts, and how much people differ. People do differ, so no more than
            {{ MOST_LEARNT }} clients’ worth is learnt. Until there are some, the usual error is taken, and the page
            says so.
          </dd>
        </div>
        <div>
          <dt class="font-semibold">The interval</dt>
          <dd>
            Holds the true change about 95 times in 100 from the sixth check-in on, and more often where nothing
            changes.
          </dd>
        </div>
        <div>
          <dt class="font-semibold">The start</dt>
          <dd>
            A start picked afterwards finds something in any history. So only a start chosen before its first reading
            counts in full; of all others stronger proof is asked.
          </dd>
        </div>
      </dl>
      <p class="mt-3 border-l-4 border-ink pl-3">{{ PROMISE }}</p>
      <p class="mt-3 text-[15px] text-faded">
        Tried in thirty simulated worlds with up to a thousand clients each, to 24 check-ins. A drift that all clients
        of one hand share cannot be told from a change by any statistics: only a steady person measured again tells.
      </p>
    </article>
    <section class="bg-sheet px-4 py-4 sm:px-6" aria-labelledby="try-it">
      <h2 id="try-it" class="mb-1 text-xl font-bold">Try it on people whose truth is known</h2>
      <p class="max-w-prose text-[15px] text-faded">
        {{ 2 * CLIENTS }} simulated clients, seven folds, {{ LOOKS }} check-ins each: half do not change, half lose fat
        steadily. The old rule called a change real when first and last differed by 1.96 assumed errors.
      </p>
      <div class="mt-3 flex flex-wrap items-end gap-x-6 gap-y-3">
        <ListField v-model="world" class="w-64 max-w-full" label="They are measured" name="world" :options="worlds" />
        <div class="grid gap-1">
          <span class="font-semibold">Fat lost a week</span>
          <PressGroup v-model="pace" label="Fat lost a week" :options="PACES" />
        </div>
        <div class="grid gap-1">
          <span class="font-semibold">A check-in every</span>
          <PressGroup v-model="cadence" label="A check-in every" :options="CADENCES" />
        </div>
        <button class="press press-first min-h-11" :disabled="running" data-look @click="look">
          {{ running ? 'Measuring them all …' : seen ? 'Measure others' : 'Measure them' }}
        </button>
      </div>
      <div v-if="seen && told" class="mt-4 grid gap-6" aria-live="polite">
        <LookingKind
          title="Do not change"
          :kind="seen.unchanged"
          :of="CLIENTS"
          :weeks-apart="told.cadence"
          data-kind="unchanged"
        />
        <LookingKind
          :title="`Lose ${told.pace} kg of fat a week`"
          :kind="seen.losing"
          :of="CLIENTS"
          :weeks-apart="told.cadence"
          losing
          data-kind="losing"
        />
      </div>
      <p v-else class="mt-6 text-faded">
        {{
          running
            ? 'This takes some seconds.'
            : 'Press to measure them: every fold is read, rounded and judged as on the floor.'
        }}
      </p>
    </section>
  </div>
</template>
