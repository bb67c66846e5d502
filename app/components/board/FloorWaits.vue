<script setup lang="ts">
import { changeRow } from '#core/following'
import { reasonSaid } from '#core/schedule'
import type { Floor } from '#shared/schemas/checkin'
import { useMe } from '~/stores/me'

/** What waits beside the week: to be looked at, due and not booked, coming up, measured lately. */
const props = defineProps<{ floor: Floor; booked: ReadonlySet<string> }>()
const store = useMe()
const emit = defineEmits<{ book: [client: { id: string; name: string }] }>()

/** Who has a visit coming up is not here as well. */
const due = computed(() => props.floor.due.filter(({ clientId }) => !props.booked.has(clientId)))
const soon = computed(() => props.floor.soon.filter(({ clientId }) => !props.booked.has(clientId)))
const ABOUT = { plan: 'plan', challenge: 'challenge entry', 'daily-weight': 'daily weight' } as const
const suspendedSaid = ({ suspensions }: Floor['suspended'][number]) =>
  `${[...new Set(suspensions.map(({ about }) => ABOUT[about]))].join(', ')}: ${suspensions[0]?.sentence ?? ''}`
const handedIn = (week: Floor['handIns'][number]) =>
  [
    week.girths > 0 ? `${week.girths} girths` : null,
    week.photos > 0 ? `${week.photos} ${week.photos === 1 ? 'photograph' : 'photographs'}` : null,
  ]
    .filter(Boolean)
    .join(', ') || 'a word'
</script>

<template>
  <div class="grid content-start gap-5">
    <FloorList
      v-if="(floor.suspended ?? []).length > 0"
      title="Suspended: decide"
      :count="floor.suspended.length"
      data-floor-suspended
    >
      <li
        v-for="one in floor.suspended"
        :key="one.clientId"
        class="flex items-center gap-3 border-b border-rule py-1.5"
      >
        <span class="min-w-0 flex-1">
          <span class="block truncate font-semibold">{{ one.clientName }}</span>
          <span class="block text-sm text-faded" :title="one.suspensions[0]?.sentence">{{ suspendedSaid(one) }}</span>
        </span>
        <NuxtLink :to="`/clients/${one.clientId}`" class="press">Look</NuxtLink>
      </li>
    </FloorList>
    <FloorList v-if="floor.handIns.length > 0" title="Handed in" :count="floor.handIns.length">
      <li v-for="week in floor.handIns" :key="week.id" class="flex items-center gap-3 border-b border-rule py-1.5">
        <span class="min-w-0 flex-1">
          <span class="block truncate font-semibold">{{ week.clientName }}</span>
          <span class="block text-sm text-faded">{{ sayAgo(week.day) }}, {{ handedIn(week) }}</span>
        </span>
        <NuxtLink :to="`/clients/${week.clientId}/from-home#${week.id}`" class="press">Look</NuxtLink>
      </li>
    </FloorList>
    <FloorList title="Due, not booked" :count="due.length" none="Nobody is due who is not booked.">
      <li v-for="line in due" :key="line.clientId" class="flex items-center gap-2 border-b border-rule py-1.5">
        <NuxtLink :to="`/clients/${line.clientId}`" class="min-w-0 flex-1">
          <span class="block truncate font-semibold">{{ line.clientName }}</span>
          <span class="block truncate text-sm text-faded" :title="reasonSaid(line.next, sayDay)"
            ><strong v-if="line.overdue" class="text-alert">overdue, </strong
            >{{
              line.lastDay ? `last ${sayAgo(line.lastDay)}; ${reasonSaid(line.next, sayDay)}` : 'not measured yet'
            }}</span
          >
        </NuxtLink>
        <button
          type="button"
          class="press press-quiet px-3"
          :aria-label="`Book ${line.clientName}`"
          @click="emit('book', { id: line.clientId, name: line.clientName })"
        >
          Book
        </button>
        <NuxtLink :to="`/clients/${line.clientId}/measure`" class="press px-3">Measure</NuxtLink>
      </li>
    </FloorList>
    <FloorList v-if="floor.calipers.length > 0" title="Calipers to check" :count="floor.calipers.length">
      <li v-for="one in floor.calipers" :key="one.id" class="flex items-center gap-3 border-b border-rule py-1.5">
        <span class="min-w-0 flex-1">
          <span class="block truncate font-semibold">{{ one.name }}</span>
          <span class="block text-sm" :class="one.fault ? 'font-semibold text-alert' : 'text-faded'">{{
            one.fault
              ? `failed its last check: ${one.fault === 'off' ? 'off the block' : 'pressure of the jaws'}`
              : one.days === null
                ? 'never checked'
                : `last checked ${Math.round(one.days / 30)} months ago`
          }}</span>
        </span>
        <NuxtLink to="/bench/calipers" class="press">Check</NuxtLink>
      </li>
    </FloorList>
    <FloorList title="Coming up" :count="soon.length" none="Nobody within two weeks who is not booked.">
      <li v-for="line in soon" :key="line.clientId" class="flex items-center gap-2 border-b border-rule py-1">
        <NuxtLink :to="`/clients/${line.clientId}`" class="min-w-0 flex-1">
          <span class="block truncate">{{ line.clientName }}</span>
          <span class="block truncate text-sm text-faded"
            >from {{ sayDay(line.dueOn) }}, {{ reasonSaid(line.next, sayDay) }}</span
          >
        </NuxtLink>
        <button
          type="button"
          class="press press-quiet px-3"
          :aria-label="`Book ${line.clientName}`"
          @click="emit('book', { id: line.clientId, name: line.clientName })"
        >
          Book
        </button>
      </li>
    </FloorList>
    <FloorList v-if="floor.events.length > 0" title="Days that do not move">
      <li v-for="line in floor.events" :key="line.clientId" class="border-b border-rule" data-floor-event>
        <NuxtLink :to="`/clients/${line.clientId}`" class="flex items-baseline gap-4 py-1.5">
          <span class="min-w-0 flex-1">
            <span class="block truncate font-semibold">{{ line.event.name }}</span>
            <span class="block text-sm text-faded">{{ line.clientName }}</span>
          </span>
          <span class="text-sm whitespace-nowrap text-faded">{{ sayDay(line.event.day) }}</span>
        </NuxtLink>
      </li>
    </FloorList>
    <FloorList title="Measured lately" :count="floor.finished.length">
      <li v-if="floor.finished.length === 0" class="py-2 text-[15px] text-faded">
        Nothing yet. <NuxtLink to="/clients/new" class="underline">Add a client</NuxtLink> and measure.
      </li>
      <li v-for="line in floor.finished" :key="line.checkinId" class="border-b border-rule">
        <NuxtLink :to="`/clients/${line.clientId}`" class="flex items-center gap-3 py-1.5">
          <span class="min-w-0 flex-1">
            <span class="block truncate font-semibold">{{ line.clientName }}</span>
            <span class="block text-sm text-faded">{{ sayDay(line.day) }}, {{ sayAgo(line.day) }}</span>
          </span>
          <span v-if="line.change" class="text-right text-[15px]">
            <VerdictMark :change="line.change" />
            <span class="block text-sm text-faded"
              >{{ line.figure }} <span class="figure">{{ changeRow(line.change, store.units).difference }}</span> since
              {{ sayDay(line.change.since) }}</span
            >
          </span>
        </NuxtLink>
      </li>
    </FloorList>
  </div>
</template>
