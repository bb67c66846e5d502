<script setup lang="ts">
import { leadSentences, summariseSpan, type Span } from '#core/following'
import type { Units } from '#core/units'
import type { FollowedEnd } from '#shared/following'

/** On the day of a visit, in one place: what follows it. */
const props = defineProps<{
  clientId: string
  then: FollowedEnd | null
  now: FollowedEnd
  span: Span | null
  next: string
  units: Units
  neutral: boolean
  takeHome: string
  /** Keeps words with the check-in; gives whether it worked. */
  keep: (words: string) => Promise<boolean>
}>()
const emit = defineEmits<{ schedule: []; turn: [] }>()

/** What would be kept: what the coach reads first, then what moved. */
const words = computed(() => {
  const { span, then, now, units, neutral } = props
  if (!span || !then) return 'First check-in.'
  const settings = { units, from: then.record.day, to: now.record.day, next: null, unasked: null, neutral, say: sayDay }
  return [...leadSentences(span, settings), ...summariseSpan(span, units, neutral)].join(' ')
})
const kept = computed(() => props.now.record.keptWords !== null)
</script>

<template>
  <div class="no-print border-b border-rule bg-sheet px-4 py-1 sm:px-6" data-after>
    <h2 class="sr-only">What follows this visit</h2>
    <ul
      class="flex flex-wrap gap-x-5 text-[15px] [&_:is(a,button)]:inline-flex [&_:is(a,button)]:min-h-11 [&_:is(a,button)]:items-center [&_:is(a,button)]:underline [&_:is(a,button)]:underline-offset-4"
    >
      <li class="self-center font-semibold">Measured today.</li>
      <li><button type="button" data-turn @click="emit('turn')">Turn to the client</button></li>
      <li><button type="button" @click="emit('schedule')">Next visit about {{ sayDay(next) }}</button></li>
      <li><NuxtLink :to="`/clients/${clientId}/photographs`">Take a photo</NuxtLink></li>
      <li><a :href="takeHome" download>Page to take home</a></li>
      <li v-if="!kept"><button type="button" data-keep-words @click="keep(words)">Keep the words</button></li>
      <li v-else class="self-center text-faded">Words kept.</li>
    </ul>
  </div>
</template>
