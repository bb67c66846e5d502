<script setup lang="ts">
import { SCHOOLS, SITES, type Site, type SiteId } from '#core/sites'
import { formatNumber, trimZero, type LengthUnit, type MassUnit } from '#core/units'
import type { Source } from '#core/readings'
import { isNeutral } from '#shared/neutral'
import { useMe } from '~/stores/me'
import { useOutbox } from '~/stores/outbox'

definePageMeta({ layout: false })

const route = useRoute()
const store = useMe()
const outbox = useOutbox()
const id = String(route.params.id)
const session = useMeasuring(id)
const { facts, record, result, last, protocol, cell } = session
const acts = useCheckinActs(id, session)
const { problem, tell, finish, leave } = acts

const massUnit = ref<MassUnit>(store.units.mass)
const lengthUnit = ref<LengthUnit>(store.units.length)
const wished = ref(false)
const blind = computed(() => facts.value?.blind === true || wished.value)
const dialog = ref<'keys' | 'note' | 'skip' | null>(null)
const marking = ref(false)
/** Where marking is, and what has been marked. */
const markingAt = shallowRef<Site | null>(null)
const marked = ref(new Set<string>())
/** A filled paper sheet is typed in: its readings say so, and nothing is left to mark. */
const fromPaper = route.query.paper === '1'
const seconds = computed(() => SCHOOLS[protocol.value.school].readAfterSeconds || 2)
const count = useCount(seconds)
const hands = useHands()
const { current, rows, round } = useSheet(result, last, cell)

const { lastKnown, here, copied, daysSince } = useKnown(facts, result, last)
const resolutionMm = computed(() => facts.value?.caliper?.resolutionMm ?? null)
const entry = useEntry({
  cell,
  massUnit,
  lengthUnit,
  last: lastKnown,
  here,
  daysSince,
  resolutionMm,
  commit,
  strike: session.strikeAt,
  typing: session.typing,
})

const { method, chooseWay, leftOutBefore } = useSiteHints(facts, current)

function commit(entered: Parameters<typeof session.read>[0], source: Source, site?: SiteId) {
  const name = site ? SITES[site].name : (current.value?.name ?? (cell.value.kind === 'height' ? 'Height' : 'Weight'))
  session.read(entered, fromPaper ? 'paper' : source, {
    ...(site ? { site } : {}),
    ...(method.value ? { method: method.value } : {}),
  })
  hands.readBack(name, trimZero(formatNumber(entered.value, 1)))
}

useOpening(async () => {
  await session.load()
  const untouched = session.live.value.length === 0 && !record.value?.finishedAt
  marking.value = untouched && !fromPaper && !store.me?.habits.skipMarking
})
useHead({ title: () => `Measuring ${facts.value?.client.name ?? ''}, Oak Pinch` })
const devices = useDevices({
  press({ device, value }) {
    if (dialog.value !== null || marking.value) return
    if (device === 'scale' && cell.value.kind === 'weight') {
      massUnit.value = 'kg'
      entry.fromDevice(value, 'scale')
    }
    if (device === 'caliper' && current.value?.kind === 'fold') entry.fromDevice(value, 'caliper')
  },
})
watch(
  () => outbox.moved[id],
  (open) => open && reloadNuxtApp({ path: `/measure/${open}`, force: true }),
)
watch(
  () => session.live.value.length,
  (count) => count > 0 && (marking.value = false),
)
watch(current, (site) => site && devices.tellSite(site.id), { immediate: true })
watch(cell, count.reset)
watch(session.discarded, () => navigateTo('/'))

/** The result starts covered where the client can see the screen. */
const startsCovered = computed(() => {
  const cover = store.me?.habits.cover ?? 'first'
  return cover === 'always' || (cover === 'first' && facts.value?.last === null)
})
/** What the client may see here shows no percent, mass or weight. */
const neutral = computed(() => facts.value !== null && isNeutral(facts.value.client, todayHere()))
const kept = useKeptWord(() => Boolean(record.value?.finishedAt))
const hasReading = computed(() => (result.value?.session.sites ?? []).some(({ live }) => live.length > 0))
const { pickedFigure, noteAt, noted } = useReadingWords(session)

function act(source: Source) {
  if (cell.value.kind !== 'none') entry.keep(source)
}

function skip() {
  if (cell.value.kind === 'weight') session.leaveOut(null)
  else if (cell.value.kind === 'site') dialog.value = 'skip'
  else session.move(1)
}

useMeasuringKeys({
  type: entry.type,
  erase: entry.erase,
  keep: () => (cell.value.kind !== 'none' ? act('keyboard') : store.isRecorder ? undefined : finish()),
  strikeLast: session.strikeNext,
  note: () => (dialog.value = 'note'),
  skip,
  count: count.start,
  blind: () => (wished.value = !wished.value),
  move: session.move,
  beside: session.pickBeside,
  inTurn: () => session.choose(null),
  help: () => (dialog.value = 'keys'),
  correct: () => entry.correct('keyboard'),
  busy: () => dialog.value !== null || marking.value,
})
</script>

<template>
  <div v-if="facts && record && result" class="measure grid h-dvh overflow-hidden" :class="{ marking }">
    <MeasureHeader
      class="top"
      :name="facts.client.name"
      :record="record"
      :protocol-name="protocol.name"
      :round="round"
      :kept="kept"
      :recorder="record.recorder"
      @keys="dialog = 'keys'"
      @leave="leave"
    />
    <FigurePane
      :rows="rows"
      :current="marking ? markingAt : current"
      :marked="marking ? marked : null"
      :left-side="record.side === 'left'"
      class="figure-pane border-r border-rule"
    />
    <MarkStage
      v-if="marking"
      class="mark-pane overflow-y-auto"
      :sites="protocol.sites"
      :landmarks="facts.landmarks"
      :side="record.side"
      :sex="facts.client.sex"
      :skips-marking="store.me?.habits.skipMarking ?? false"
      :problem="problem"
      @at="markingAt = SITES[$event]"
      @marked="marked.add($event)"
      @landmark="acts.saveLandmark"
      @done="marking = false"
      @habit="tell(() => store.setHabits({ ...store.me?.habits, skipMarking: $event }))"
    />
    <section v-else class="sheet-pane overflow-y-auto bg-sheet px-3 py-3 sm:px-6" aria-label="Log sheet">
      <BodyMeasures
        :result="result"
        :last="last"
        :cell="cell"
        :units="store.units"
        :with-height="record.withHeight"
        :trials="session.heights.value.length"
        :blind="blind"
        :kept="facts"
        :neutral="neutral"
        @choose="session.choose"
        @blind="wished = !wished"
      />
      <LogSheet
        :rows="rows"
        :cell="cell"
        :typed="entry.text.value"
        :last-date="facts.last ? sayDay(facts.last.day) : null"
        :show-last="!blind && last !== null"
        :base="result.session.base"
        :units="store.units"
        :blind="blind"
        :noted="noted"
        :picked="session.picked.value"
        @choose="session.choose"
        @pick="session.pick"
      />
      <SumSoFar
        v-if="!facts.study && !neutral && rows.some(({ site }) => site.kind === 'fold')"
        class="mt-4 max-sm:mt-2"
        :session="result.session"
        :last-sum-mm="blind ? null : (last?.sumMm ?? null)"
      />
      <WishOffer class="mt-2" :sites="session.onWish.value" @wish="session.wish" />
      <TapeOffer
        v-if="!facts.study"
        class="mt-3"
        :result="result"
        :first="facts.last === null"
        :record="record"
        @over="acts.goOver"
      />
      <p v-if="copied" role="status" class="mt-3 border-l-4 border-fat pl-3 text-sm" data-copied>
        {{ copied.sentence }}
      </p>
      <SpeakingEquations
        v-if="cell.kind !== 'none' && !blind && !neutral"
        class="mt-3 max-sm:hidden"
        :result="result"
      />
      <LazySetAside v-if="outbox.aside.length > 0" class="mt-3" :client-id="facts.client.id" />
    </section>

    <section v-if="!marking" class="entry-pane border-l border-rule px-4 py-3 sm:px-6" aria-label="Entry">
      <template v-if="cell.kind !== 'none'">
        <EntryPanel
          class="said min-h-0 flex-1 overflow-y-auto"
          :cell="cell"
          :typed="entry.text.value"
          :live="devices.shown.value"
          :problem="entry.problem.value"
          :slip="entry.slip.value"
          :mass-unit="massUnit"
          :length-unit="lengthUnit"
          :count="{ share: count.share.value, done: count.done.value, seconds }"
          :side="record.side"
          :landmark="current ? (facts.landmarks[current.id] ?? null) : null"
          :method="method"
          @count="count.start"
          @mass="massUnit = $event"
          @length="lengthUnit = $event"
          @method="chooseWay"
          @correct="entry.correct('pad')"
        />
        <LeftOutHint v-if="leftOutBefore" :why="leftOutBefore" @again="session.leaveOut(leftOutBefore)" />
        <KeyPad
          class="keys shrink-0"
          :can-strike="session.strikable.value !== null"
          :picked="pickedFigure"
          :fractions="entry.kind.value === 'length' && lengthUnit === 'in'"
          @type="entry.type"
          @erase="entry.erase"
          @keep="act('pad')"
          @strike="session.strikeNext"
          @note="dialog = 'note'"
        />
        <div class="skips flex shrink-0 justify-between pt-1 text-sm text-faded" @pointerdown.prevent>
          <button class="min-h-9 underline underline-offset-4" @click="skip">
            {{ cell.kind === 'weight' ? 'measure without weight' : 'skip' }}
          </button>
          <button v-if="hasReading && !store.isRecorder" class="min-h-9 underline underline-offset-4" @click="finish">
            finish as it is
          </button>
        </div>
      </template>
      <template v-else>
        <ResultPanel
          :result="result"
          :study="facts.study ?? null"
          :units="store.units"
          :sum-name="protocol.sumName"
          :neutral="neutral"
          :conversion="facts.choices?.conversion"
          :record="{ ...record, ...session.session.value }"
          :covered="startsCovered"
          class="result min-h-0 flex-1 overflow-y-auto"
        />
        <div class="skips flex shrink-0 gap-2">
          <button v-if="!store.isRecorder" class="press press-first min-h-14 flex-1 text-lg" @click="finish">
            Done
          </button>
          <button class="press press-quiet min-h-14" @click="session.strikeNext">
            Strike {{ pickedFigure ?? 'last' }}
          </button>
          <button class="press press-quiet min-h-14" @click="dialog = 'note'">Note</button>
        </div>
      </template>
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    </section>

    <LazyKeysDialog v-if="dialog === 'keys'" @close="dialog = null" />
    <LazyNoteDialog
      v-if="dialog === 'note'"
      :note="record.note"
      :problem="problem"
      :reading="noteAt"
      @close="dialog = null"
      @save="(note) => acts.saveNote(note).then((kept) => kept && (dialog = null))"
      @remark="((dialog = null), acts.remark($event))"
    />
    <LazySkipDialog
      v-if="dialog === 'skip'"
      :site="current?.name ?? ''"
      @close="dialog = null"
      @later="((dialog = null), session.move(1))"
      @leave-out="((dialog = null), session.leaveOut($event))"
    />
  </div>
  <p v-else class="p-6 text-faded">Fetching the log sheet.</p>
</template>

<style scoped src="~/assets/measure.css"></style>
