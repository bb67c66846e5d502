<script setup lang="ts">
import { nextDate, type ClientSchedule } from '#core/schedule'
import { withoutBody } from '#core/safety'
import { assessorSaid } from '#shared/assessor-said'
import type { FollowedEnd } from '#shared/following'

/** The record with no number about the body: what was done, what went well, when the next visit is. */
const props = defineProps<{
  ends: readonly FollowedEnd[]
  schedule: ClientSchedule
  problem: string | null
  /** Keeps words with the newest check-in, or takes them back; gives whether it worked. */
  keep: (words: string | null) => Promise<boolean>
}>()

/** Check-ins listed at most. */
const MOST = 12
const { history } = useFollowed().followed
const newest = computed(() => props.ends.at(-1) ?? null)
const kept = computed(() => newest.value?.record.keptWords ?? '')
const shown = computed(() => withoutBody(kept.value))
const draft = ref<string | null>(null)
const leftOut = computed(() => draft.value !== null && withoutBody(draft.value).length < draft.value.trim().length)
const next = computed(() => nextDate(newest.value?.record.day ?? null, props.schedule, todayHere()))

async function put(words: string) {
  if (await props.keep(withoutBody(words) || null)) draft.value = null
}
</script>

<template>
  <div
    class="grid flex-1 content-start gap-x-12 gap-y-6 px-4 py-5 sm:px-6 lg:grid-cols-[minmax(0,1fr)_minmax(300px,420px)]"
    data-neutral-record
  >
    <section class="grid content-start gap-2" aria-labelledby="went-well">
      <h2 id="went-well" class="border-b-2 border-ink pb-1 text-lg font-bold">What went well</h2>
      <form v-if="draft !== null" class="grid gap-2" @submit.prevent="put(draft)">
        <label class="sr-only" for="trained">What went well in training</label>
        <textarea id="trained" v-model="draft" class="field min-h-32" maxlength="4000" />
        <p v-if="leftOut" role="status" class="text-[15px] text-alert">
          Sentences with figures or about the body are left out.
        </p>
        <div class="flex gap-2">
          <button class="press press-first">Keep</button>
          <button type="button" class="press press-quiet" @click="draft = null">Leave</button>
        </div>
      </form>
      <template v-else>
        <p v-if="shown" class="max-w-prose text-xl" data-trained>{{ shown }}</p>
        <p v-else class="text-faded">Write what went well in training: strength, technique, endurance.</p>
        <button
          type="button"
          class="no-print press press-quiet mt-1 justify-self-start"
          :disabled="!newest"
          @click="draft = shown"
        >
          {{ shown ? 'Change' : 'Write' }}
        </button>
      </template>
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
      <p class="mt-4 text-lg">Next visit about <strong>{{ sayDay(next.day) }}</strong>.</p>
    </section>
    <section aria-labelledby="visits" class="grid content-start">
      <h2 id="visits" class="border-b-2 border-ink pb-1 text-lg font-bold">Visits</h2>
      <ul>
        <li
          v-for="end in [...ends].reverse().slice(0, MOST)"
          :key="end.record.id"
          class="flex gap-4 border-b border-rule py-1.5"
        >
          <span class="min-w-0 flex-1">{{ sayDay(end.record.day) }}</span>
          <span class="text-faded">by {{ history ? assessorSaid(end.record, history) : end.record.startedBy }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>
