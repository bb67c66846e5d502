<script setup lang="ts">
import { format } from 'date-fns'
import { SITES } from '#core/sites'
import { nextStep } from '#core/readings'
import { formatMass, formatNumber, type MassUnit } from '#core/units'
import type { CheckinRecord } from '#shared/schemas/checkin'
import { markOf, type SheetRow } from '~/components/measure/sheet'
import { useMe } from '~/stores/me'
import { useOutbox } from '~/stores/outbox'

definePageMeta({ layout: false })

const route = useRoute()
const router = useRouter()
const store = useMe()
const outbox = useOutbox()
const id = String(route.params.id)
const session = useMeasuring(id)
const { facts, record, result, last, protocol, cell } = session

const unit = ref<MassUnit>(store.units.mass)
const showLast = ref(true)
const dialog = ref<'keys' | 'note' | null>(null)
const problem = ref<string | null>(null)
const noteProblem = ref<string | null>(null)
const count = useCount()
const entry = useEntry(cell, unit, { fold: session.readFold, weight: session.readWeight })

onMounted(async () => {
  try {
    await session.load()
  } catch (error) {
    throw showError({ statusCode: problemOf(error).status || 503, message: problemOf(error).message })
  }
})
useHead({ title: () => `Measuring ${facts.value?.client.name ?? ''}, Oak Pinch` })
watch(cell, count.reset)

const current = computed(() => (cell.value.kind === 'fold' ? SITES[cell.value.site] : null))
const upcoming = computed(() => {
  if (!result.value) return null
  const step = nextStep(result.value.session)
  return step.kind === 'measure' ? step.site : null
})
const rows = computed<SheetRow[]>(() =>
  (result.value?.session.sites ?? []).map((state) => ({
    site: SITES[state.site],
    state,
    lastMm: last.value?.session.sites.find(({ site }) => site === state.site)?.value ?? null,
    mark: markOf(state, current.value?.id ?? null, upcoming.value),
  })),
)
const round = computed(() => {
  const state = result.value?.session
  if (!state || state.complete) return 'every site settled'
  const least = Math.min(...state.sites.filter(({ status }) => status !== 'agreed').map(({ live }) => live.length))
  return least >= state.base ? 'measuring again where rounds differ' : `round ${least + 1} of ${state.base}`
})
const kept = computed(() => {
  if (outbox.unsent.length === 0) return 'everything kept'
  if (!outbox.trouble) return 'sending'
  return outbox.storeless
    ? `not sent yet, keep this page open: ${outbox.trouble}`
    : `kept on this device: ${outbox.trouble}`
})
const hasReading = computed(() => (result.value?.session.sites ?? []).some(({ live }) => live.length > 0))
const pickedFigure = computed(() =>
  session.picked.value && session.strikable.value ? formatNumber(session.strikable.value.value, 1) : null,
)

function act(source: 'pad' | 'keyboard') {
  if (cell.value.kind !== 'none') entry.keep(source)
}

useMeasuringKeys({
  type: entry.type,
  erase: entry.erase,
  keep: () => (cell.value.kind === 'none' ? finish() : act('keyboard')),
  strikeLast: session.strikeNext,
  note: () => (dialog.value = 'note'),
  skip: session.skip,
  count: count.start,
  blind: () => (showLast.value = !showLast.value),
  move: session.move,
  beside: session.pickBeside,
  inTurn: () => session.choose(null),
  help: () => (dialog.value = 'keys'),
  busy: () => dialog.value !== null,
})

async function saveNote(note: string) {
  try {
    const saved = await $fetch<CheckinRecord>(`/api/checkins/${id}`, { method: 'PATCH', body: { note } })
    if (facts.value) facts.value = { ...facts.value, checkin: saved }
    noteProblem.value = null
    dialog.value = null
  } catch (error) {
    noteProblem.value = problemOf(error).message
  }
}

async function finish() {
  problem.value = null
  try {
    await outbox.sendAll()
    if (outbox.unsent.some(({ checkinId }) => checkinId === id)) {
      problem.value = 'Not everything has reached the server yet. The readings are kept here; finish when it is back.'
      return
    }
    await $fetch(`/api/checkins/${id}`, { method: 'PATCH', body: { finished: true } })
    await router.push(`/clients/${facts.value?.client.id}`)
  } catch (error) {
    problem.value = problemOf(error).message
  }
}

async function leave() {
  const empty = !hasReading.value && result.value?.weightKg === null && !record.value?.finishedAt
  if (empty) await $fetch(`/api/checkins/${id}`, { method: 'DELETE' }).catch(() => undefined)
  await router.push(`/clients/${facts.value?.client.id}`)
}
</script>

<template>
  <div v-if="facts && record && result" class="measure grid h-dvh overflow-hidden">
    <header class="top flex items-center gap-3 border-b border-rule bg-sheet px-4 sm:gap-6 sm:px-6">
      <NuxtLink to="/" aria-label="Oak Pinch, to the floor"><ProductMark class="size-6" /></NuxtLink>
      <h1 class="truncate font-bold sm:text-lg">{{ facts.client.name }}</h1>
      <span class="truncate text-faded max-lg:hidden">
        {{ protocol.name }} · {{ round }} · started {{ format(new Date(record.startedAt), 'HH:mm') }}
      </span>
      <span class="ml-auto truncate text-sm text-faded" role="status" data-kept>{{ kept }}</span>
      <button class="press press-quiet px-3 max-sm:hidden" @click="dialog = 'keys'">
        ?<span class="sr-only"> keys</span>
      </button>
      <button class="press" @click="leave">{{ record.finishedAt ? 'Back' : 'Pause' }}</button>
    </header>

    <FigurePane
      :rows="rows"
      :current="current"
      :left-side="record.side === 'left'"
      class="figure-pane border-r border-rule"
    />

    <section class="sheet-pane overflow-y-auto bg-sheet px-3 py-3 sm:px-6" aria-label="Log sheet">
      <div class="mb-2 flex items-baseline gap-4 max-sm:hidden">
        <h2 class="text-lg font-bold">Log sheet</h2>
        <button
          class="flex items-baseline gap-2"
          :class="{ 'font-semibold text-signal': cell.kind === 'weight' }"
          @click="session.choose('weight')"
        >
          <span class="text-faded">Weight</span>
          <span class="figure text-lg font-bold text-weight" data-weight>{{
            result.weightKg === null ? 'to come' : formatMass(result.weightKg, store.units)
          }}</span>
          <span v-if="result.weightKg !== null" class="text-faded">{{ store.units.mass }}</span>
          <span v-if="last && last.weightKg !== null && showLast" class="figure text-faded">
            last {{ formatMass(last.weightKg, store.units) }}
          </span>
        </button>
        <button
          v-if="last"
          class="ml-auto text-sm text-faded underline underline-offset-4"
          :aria-pressed="!showLast"
          @click="showLast = !showLast"
        >
          {{ showLast ? 'hide last time' : 'show last time' }}
        </button>
      </div>
      <LogSheet
        :rows="rows"
        :cell="cell"
        :typed="entry.text.value"
        :last-date="facts.last ? format(new Date(facts.last.startedAt), 'd MMM') : null"
        :show-last="showLast && last !== null"
        :base="result.session.base"
        :picked="session.picked.value"
        @choose="session.choose"
        @pick="session.pick"
      />
      <SumSoFar
        class="mt-4 max-sm:mt-2"
        :session="result.session"
        :last-sum-mm="showLast ? (last?.sumMm ?? null) : null"
      />
      <ul v-if="outbox.refused.length > 0" role="alert" class="mt-3 grid gap-1 border-l-4 border-fat pl-3 text-sm">
        <li v-for="fact in outbox.refused" :key="fact.id">
          {{ fact.reading ? `${fact.reading.value} at ${fact.reading.site}` : 'A strike' }} was not taken:
          {{ fact.refused }}
        </li>
      </ul>
    </section>

    <section class="entry-pane flex flex-col gap-1 border-l border-rule px-4 py-3 sm:px-6" aria-label="Entry">
      <template v-if="cell.kind !== 'none'">
        <EntryPanel
          :cell="cell"
          :typed="entry.text.value"
          :problem="entry.problem.value"
          :mass-unit="unit"
          :count="{ share: count.share.value, done: count.done.value }"
          :side="record.side"
          @count="count.start"
          @unit="unit = $event"
        />
        <KeyPad
          class="min-h-0 flex-1"
          :can-strike="session.strikable.value !== null"
          :picked="pickedFigure"
          @type="entry.type"
          @erase="entry.erase"
          @keep="act('pad')"
          @strike="session.strikeNext"
          @note="dialog = 'note'"
        />
        <div class="flex justify-between pt-2 text-sm text-faded" @pointerdown.prevent>
          <button class="min-h-9 underline underline-offset-4" @click="session.skip">
            {{ cell.kind === 'weight' ? 'measure without weight' : 'skip for now' }}
          </button>
          <button v-if="hasReading" class="min-h-9 underline underline-offset-4" @click="finish">
            finish as it is
          </button>
        </div>
      </template>
      <template v-else>
        <ResultPanel
          :result="result"
          :units="store.units"
          :sum-name="protocol.sumName"
          class="flex-1 overflow-y-auto"
        />
        <div class="flex gap-2">
          <button class="press press-first min-h-14 flex-1 text-lg" @click="finish">Done</button>
          <button class="press press-quiet min-h-14" @click="session.strikeNext">
            Strike {{ pickedFigure ?? 'last' }}
          </button>
          <button class="press press-quiet min-h-14" @click="dialog = 'note'">Note</button>
        </div>
      </template>
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    </section>

    <KeysDialog :open="dialog === 'keys'" @close="dialog = null" />
    <NoteDialog
      :open="dialog === 'note'"
      :note="record.note"
      :problem="noteProblem"
      @close="dialog = null"
      @save="saveNote"
    />
  </div>
  <p v-else class="p-6 text-faded">Fetching the log sheet.</p>
</template>

<style scoped>
.measure {
  grid-template: 'top top top' 52px 'figure sheet entry' minmax(0, 1fr) / 316px minmax(0, 1fr) 400px;
}
.top {
  grid-area: top;
}
.figure-pane {
  grid-area: figure;
  min-height: 0;
}
.sheet-pane {
  grid-area: sheet;
  min-width: 0;
}
.entry-pane {
  grid-area: entry;
  min-height: 0;
}
@media (max-width: 1023px) {
  .measure {
    grid-template: 'top top' 52px 'sheet entry' minmax(0, 1fr) / minmax(0, 1fr) 360px;
  }
  .figure-pane {
    display: none;
  }
}
@media (max-width: 639px) {
  .measure {
    grid-template: 'top' 48px 'sheet' minmax(0, 1fr) 'entry' auto / minmax(0, 1fr);
  }
  .entry-pane {
    border-top: 1px solid var(--rule);
    border-left: 0;
  }
}
</style>
