<script setup lang="ts">
import { SITES, type SiteId } from '#core/sites'
import { useOutbox } from '~/stores/outbox'
import type { Waiting } from '~/storage/outbox-db'

/** What of one client the server would not take, or failed at: it is on this device, and somebody has to decide. */
const props = defineProps<{ clientId: string }>()
const outbox = useOutbox()

const facts = computed(() => outbox.aside.filter((fact) => fact.clientId === props.clientId))
const starts = computed(() => outbox.refusedStarts.filter((start) => start.clientId === props.clientId))

function nameOf(site: string): string {
  return Object.hasOwn(SITES, site) ? SITES[site as SiteId].name : site
}

function words({ reading, skip, remark }: Waiting): string {
  if (reading) return `${nameOf(reading.site)}, ${reading.value} ${reading.unit}`
  if (skip) return `${nameOf(skip.site)} left out`
  return remark ? `Note: ${remark.words}` : 'A strike'
}

function why({ refused }: Waiting): string {
  return refused ?? 'The server failed at it; it is tried again every minute.'
}
</script>

<template>
  <section
    v-if="facts.length > 0 || starts.length > 0"
    class="grid gap-2 border-l-4 border-fat py-1 pl-3 text-[15px]"
    aria-labelledby="set-aside"
    data-aside
  >
    <h2 id="set-aside" class="font-bold">Not stored yet, kept on this device</h2>
    <div v-for="start in starts" :key="start.id" class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <p class="min-w-0 flex-1">
        The check-in started {{ sayAgo(start.body.startedAt) }} at {{ sayTime(start.body.startedAt) }} without the
        server:
        {{ start.refused }}
      </p>
      <button type="button" class="press press-quiet" @click="outbox.startAgain(start)">Try again</button>
      <button type="button" class="press press-quiet" @click="outbox.discard({ start })">Discard it</button>
    </div>
    <div v-for="fact in facts" :key="fact.id" class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <p class="min-w-0 flex-1"><span class="font-semibold">{{ words(fact) }}</span>. {{ why(fact) }}</p>
      <button type="button" class="press press-quiet" @click="outbox.tryAgain(fact)">Try again</button>
      <button v-if="!fact.strike" type="button" class="press press-quiet" @click="outbox.sendAsNew(fact)">
        Store as a new one
      </button>
      <button type="button" class="press press-quiet" @click="outbox.discard({ fact })">Discard</button>
    </div>
  </section>
</template>
