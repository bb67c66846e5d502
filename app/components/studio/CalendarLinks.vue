<script setup lang="ts">
import type { CalendarLinkRecord } from '#shared/schemas/booking'
import { useMe } from '~/stores/me'
import { calendarLinks as calls } from '~/week-calls'

/** Secret addresses that calendars read visits from. */
const store = useMe()
const links = ref<CalendarLinkRecord[]>([])
const made = ref<string | null>(null)
const { problem, tell } = useTelling()
onMounted(() =>
  tell(async () => {
    links.value = await calls.list()
  }),
)
const kinds = computed(() => [
  { whose: 'me' as const, name: 'My visits' },
  ...(store.isLead ? [{ whose: 'studio' as const, name: 'Everybody’s visits' }] : []),
])
const linkOf = (of: 'me' | 'studio') => links.value.find((one) => one.of === of) ?? null

function make(of: 'me' | 'studio') {
  return tell(async () => {
    made.value = (await calls.make(of)).link
    links.value = await calls.list()
  })
}
function revoke(id: string) {
  return tell(async () => {
    made.value = null
    links.value = await calls.revoke(id)
  })
}
</script>

<template>
  <section class="grid content-start gap-2" aria-labelledby="calendars">
    <h2 id="calendars" class="border-b-2 border-ink pb-2 text-lg font-bold">Visits in your calendar</h2>
    <p class="text-[15px] text-faded">
      A secret address to subscribe to. Visits with name, time and place, and who is due and not booked; no word about
      bodies.
    </p>
    <div v-for="{ whose, name } in kinds" :key="whose" class="flex flex-wrap items-center gap-2" :data-calendar="whose">
      <span class="min-w-0 flex-1"
        >{{ name }}
        <span class="block text-sm text-faded">{{
          linkOf(whose) ? `address made ${sayDay(linkOf(whose)?.at ?? '')} by ${linkOf(whose)?.by}` : 'no address yet'
        }}</span></span
      >
      <button type="button" class="press press-quiet" @click="make(whose)">
        {{ linkOf(whose) ? 'New address' : 'Make an address' }}
      </button>
      <button v-if="linkOf(whose)" type="button" class="press press-quiet" @click="revoke(linkOf(whose)?.id ?? '')">
        End it
      </button>
    </div>
    <div v-if="made" class="border-l-4 border-signal bg-sheet px-4 py-3" role="status" data-feed>
      <p class="figure text-sm break-all select-all">{{ made }}</p>
      <p class="mt-1 text-[15px] text-faded">It is not shown again. Whoever holds it reads the visits.</p>
    </div>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
  </section>
</template>
