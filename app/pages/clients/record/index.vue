<script setup lang="ts">
import { nextDate, USUAL_SCHEDULE } from '#core/schedule'
import type { PinnedStart } from '#shared/schemas/following'
import { useShortcuts } from '~/components/span/useShortcuts'
import { checkins } from '~/calls'
import { useMe } from '~/stores/me'

/** The change: what a coach reads first, the figures, the tape of time, the course and the sites. */
const store = useMe()
const { followed, planned } = useFollowed()
const { record, ends, fromIndex, toIndex, then, now, span, figures, noises, neutral, judging, unasked } = followed
const { pinnedIndex, searched, comparability } = followed
const { problem, tell } = useTelling()

const instants = computed(() => ends.value.map((end) => end.record.startedAt))
const shortcuts = useShortcuts({ ends, pinned: pinnedIndex, planStart: planned.startIndex })
const schedule = computed(() => followed.history.value?.schedule ?? USUAL_SCHEDULE)
const next = computed(() => nextDate(followed.records.value.at(-1)?.day ?? null, schedule.value, todayHere()))
/** On the day of a visit what follows it stands in one place. */
const isToday = computed(() => ends.value.at(-1)?.record.day === todayHere())
const scheduling = ref(false)
const turned = ref(false)
/** The figure shown to the client leads their page to take home. */
const chosen = ref<string | null>(null)
const takeHome = computed(() => {
  const query = new URLSearchParams({ neutral: 'false' })
  if (then.value) query.set('from', then.value.record.id)
  if (now.value) query.set('to', now.value.record.id)
  if (chosen.value) query.set('figure', chosen.value)
  return `/api/clients/${followed.clientId}/take-home?${query}`
})
const isNewest = computed(() => toIndex.value === ends.value.length - 1)

/** Moving the pinned start; the left jaw goes with it. */
const pinning = ref(false)
function pinned(pins: PinnedStart[]) {
  pinning.value = false
  followed.takePins(pins)
}

function keepWords(keptWords: string | null) {
  return tell(async () => {
    if (now.value) followed.takeRecord(await checkins.change(now.value.record.id, { keptWords }))
  })
}
</script>

<template>
  <FirstVisit v-if="record && now && ends.length === 1" :client-id="followed.clientId" :now="now" :next="next.day" />
  <template v-else-if="record && now && figures">
    <AfterVisit
      v-if="isToday && isNewest"
      :client-id="followed.clientId"
      :then="then"
      :now="now"
      :span="span"
      :next="next.day"
      :units="store.units"
      :neutral="neutral"
      :take-home="takeHome"
      :keep="keepWords"
      @schedule="scheduling = true"
      @turn="turned = true"
    />
    <div class="grid gap-3 border-b border-rule px-4 py-3 sm:px-6">
      <LeadWords
        v-if="span && then"
        :span="span"
        :from="then.record.day"
        :to="now.record.day"
        :next="isNewest ? next.day : null"
        :unasked="isNewest ? unasked : null"
        :units="store.units"
        :neutral="neutral"
      />
      <p v-else-if="judging" class="text-2xl leading-8 text-faded max-sm:text-xl">Reading the whole history …</p>
      <ChangeFigures
        :figures="figures"
        :span="span"
        :now="now"
        :units="store.units"
        :neutral="neutral"
        :judging="judging"
      >
        <UnaskedLines :said="unasked" :neutral="neutral" />
      </ChangeFigures>
    </div>
    <ComparabilityNotes
      v-if="comparability"
      :comparability="comparability"
      :summed="span?.summed ?? null"
      :searched="searched"
    />
    <TimeTape
      class="border-b border-rule"
      :instants="instants"
      :from="fromIndex"
      :to="toIndex"
      :pinned="pinnedIndex"
      :searched="searched"
      @jaws="followed.setJaws"
      @pin="pinning = true"
    />
    <div class="no-print flex flex-wrap items-center gap-x-5 border-b border-rule px-4 sm:px-6" data-shortcuts>
      <button
        v-for="one in shortcuts"
        :key="one.name"
        class="min-h-11 text-[15px] underline underline-offset-4"
        :class="{ 'stroke-bold': one.from === fromIndex && one.to === toIndex }"
        @click="followed.setJaws(one.from, one.to)"
      >
        {{ one.name }}
      </button>
      <NuxtLink
        :to="`/clients/${followed.clientId}/error`"
        class="ml-auto flex min-h-11 items-center font-semibold underline underline-offset-4"
        data-how-sure
        >How sure?</NuxtLink
      >
    </div>
    <SpanView
      :record="record"
      :history="followed.history.value"
      :from="fromIndex"
      :to="toIndex"
      :now="now"
      :span="span"
      :noises="noises"
      :units="store.units"
      :neutral="neutral"
      :judging="judging"
      :plan="planned.hidden.value ? null : planned.line.value"
      :against="judging ? null : planned.latest.value"
      :losing="planned.losing.value"
      :problem="problem"
      :keep-words="keepWords"
      @drawn="followed.judge"
    />
    <LazyClientSide
      v-if="turned"
      :name="followed.client.value?.name ?? ''"
      :span="span"
      :kept="now.record.keptWords"
      :next="next.day"
      :units="store.units"
      :neutral="neutral"
      @close="turned = false"
      @chosen="chosen = $event === 'none' ? null : $event"
    />
    <LazyScheduleDialog
      v-if="scheduling"
      :client-id="followed.clientId"
      :schedule="schedule"
      :last-day="followed.records.value.at(-1)?.day ?? null"
      @close="scheduling = false"
      @set="(set) => (followed.take({ schedule: set }), (scheduling = false))"
    />
    <LazyPinDialog
      v-if="pinning"
      :client-id="followed.clientId"
      :ends="ends"
      :pinned="pinnedIndex"
      @close="pinning = false"
      @pinned="pinned"
    />
  </template>
</template>
