<script setup lang="ts">
import X from '@lucide/vue/dist/esm/icons/x.mjs'
import { answerOf, CONDITIONS } from '#core/composition'
import { FLAGS } from '#core/cautions'
import { changeRow } from '#core/following'
import { findProtocol } from '#core/protocols'
import { SITES, type SiteId } from '#core/sites'
import { whatToWear, type Conflict } from '#core/schedule'
import type { BookingChange, BookingLine, VisitBrief } from '#shared/schemas/booking'
import { clients } from '~/calls'
import { useMe } from '~/stores/me'

/** Everything to say on the way to a client, and what can be done with their visit. */
const props = defineProps<{
  visit: BookingLine
  brief: VisitBrief | null
  people: ReadonlyMap<string, string>
  conflicts: readonly Conflict[]
}>()
const store = useMe()
const emit = defineEmits<{ close: []; move: []; change: [change: Omit<BookingChange, 'sequence'>] }>()

const protocol = computed(() => findProtocol(props.visit.protocolId ?? props.brief?.last?.protocolId ?? ''))
const conditions = computed(() =>
  CONDITIONS.flatMap((one) => answerOf(one, props.brief?.last?.conditions[one.id] ?? '')?.name ?? []).join(', '),
)
const passed = computed(() => Date.parse(props.visit.startsAt) < Date.now())
const notes = ref<{ site: string; note: string }[]>([])
const leaving = ref(false)

watch(
  () => props.visit.clientId,
  async (id) => {
    notes.value = []
    const prepared = await clients.prepare(id).catch(() => null)
    if (!prepared || id !== props.visit.clientId) return
    notes.value = Object.entries(prepared.landmarks).map(([site, note]) => ({ site: SITES[site as SiteId].name, note }))
  },
  { immediate: true },
)
</script>

<template>
  <section class="rounded border border-ink bg-sheet px-4 py-3" aria-label="The visit" data-visit-card>
    <div class="flex items-start gap-2">
      <div class="min-w-0 flex-1">
        <p class="figure text-[15px]">
          {{ sayDay(visit.startsAt) }}, {{ sayTime(visit.startsAt) }} · {{ visit.minutes }} min
        </p>
        <h2 class="text-xl font-bold">
          <NuxtLink :to="`/clients/${visit.clientId}`" class="underline decoration-1 underline-offset-4">{{
            visit.clientName
          }}</NuxtLink>
        </h2>
        <p class="text-[15px] text-faded">
          {{ people.get(visit.assessorId ?? '') ?? 'whoever is there'
          }}<template v-if="visit.place">, {{ visit.place }}</template
          ><template v-if="protocol"> · {{ protocol.name.toLowerCase() }}</template>
        </p>
      </div>
      <button type="button" class="grid size-10 place-items-center" aria-label="Close the visit" @click="emit('close')">
        <X class="size-4" aria-hidden="true" />
      </button>
    </div>
    <p v-for="conflict in conflicts" :key="conflict.kind" class="mt-1 font-semibold text-alert" data-conflict>
      {{ conflictSaid(conflict, people) }}
    </p>
    <p v-if="visit.movedFrom" class="mt-1 text-[15px] text-faded">
      Moved from {{ sayDay(visit.movedFrom) }}, {{ sayTime(visit.movedFrom) }}.
    </p>
    <dl v-if="brief" class="mt-2 grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-[15px]">
      <template v-if="brief.flags.length > 0 || brief.minor">
        <dt class="text-faded">Mind</dt>
        <dd class="font-semibold text-alert">
          {{ [...brief.flags.map((flag) => FLAGS[flag]), ...(brief.minor ? ['Under 18'] : [])].join('; ') }}
        </dd>
      </template>
      <template v-if="brief.last">
        <dt class="text-faded">Last</dt>
        <dd>
          {{ sayAgo(brief.last.day) }}
          <template v-if="brief.change && (!brief.neutral || brief.figure === 'sum')">
            · {{ brief.figure }}
            <span class="figure">{{ changeRow(brief.change, store.units).difference }}</span>
            <VerdictMark class="ml-1" :change="brief.change" />
          </template>
        </dd>
      </template>
      <template v-if="conditions">
        <dt class="text-faded">As then</dt>
        <dd>{{ conditions }}</dd>
      </template>
      <template v-if="protocol">
        <dt class="text-faded">Wear</dt>
        <dd>{{ whatToWear(protocol.sites) }}</dd>
      </template>
      <template v-for="{ site, note } in notes" :key="site">
        <dt class="text-faded">{{ site }}</dt>
        <dd>{{ note }}</dd>
      </template>
    </dl>
    <div class="mt-3 flex flex-wrap gap-2">
      <NuxtLink
        v-if="visit.checkin && !visit.checkin.finished"
        :to="`/measure/${visit.checkin.id}`"
        class="press press-first min-h-12 flex-1"
        >Go on measuring</NuxtLink
      >
      <NuxtLink
        v-else-if="!visit.checkin"
        :to="`/clients/${visit.clientId}/measure`"
        class="press press-first min-h-12 flex-1"
        >Measure</NuxtLink
      >
      <NuxtLink v-else :to="`/clients/${visit.clientId}`" class="press min-h-12 flex-1">Look</NuxtLink>
      <button v-if="!visit.checkin" type="button" class="press min-h-12" @click="emit('move')">Move</button>
    </div>
    <div v-if="!visit.checkin" class="mt-2 flex flex-wrap gap-x-5 text-[15px]">
      <button
        v-if="visit.state === 'no-show'"
        type="button"
        class="min-h-11 underline underline-offset-4"
        @click="emit('change', { state: 'booked' })"
      >
        They came after all
      </button>
      <button
        v-else-if="passed"
        type="button"
        class="min-h-11 underline underline-offset-4"
        @click="emit('change', { state: 'no-show' })"
      >
        Did not come
      </button>
      <a
        v-else
        :href="`/api/bookings/${visit.id}/calendar`"
        download="visit.ics"
        class="flex min-h-11 items-center underline underline-offset-4"
        >Calendar entry to hand over</a
      >
      <button
        type="button"
        class="min-h-11 underline underline-offset-4"
        :class="{ 'font-semibold text-alert': leaving }"
        @click="leaving ? emit('change', { state: 'cancelled' }) : (leaving = true)"
      >
        {{ leaving ? 'Yes, cancel it' : 'Cancel the visit' }}
      </button>
    </div>
  </section>
</template>
