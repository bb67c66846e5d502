<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import Ellipsis from '@lucide/vue/dist/esm/icons/ellipsis.mjs'
import { ageInYears } from '#core/composition'
import { reasonSaid, type NextDate } from '#core/schedule'
import type { Client } from '#shared/schemas/client'
import type { CheckinRecord } from '#shared/schemas/checkin'

/** The head of a client's record, one line: who, when next, measure, and a menu for the rest. */
defineProps<{
  client: Client
  next: NextDate
  /** The check-in under way; null: none. */
  open: CheckinRecord | null
  /** Something has been measured. */
  measured: boolean
  /** No number about the body is shown. */
  bare: boolean
  /** Folds are shown and the rest may be, with a reason on record. */
  mayLeave: boolean
  takeHome: string
}>()
const emit = defineEmits<{ schedule: []; numbers: []; leave: [] }>()
</script>

<template>
  <div class="flex items-center gap-x-4 border-b border-rule px-4 py-1.5 sm:px-6" data-head>
    <div class="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-4">
      <h1 class="max-w-full truncate text-2xl font-bold">{{ client.name }}</h1>
      <p class="text-[15px] whitespace-nowrap text-faded">
        {{ ageInYears(client.birthDate, todayHere()) }}<template v-if="client.athlete">, athlete</template
        ><template v-if="!client.archived">
          ·
          <button
            class="underline decoration-dotted underline-offset-4"
            :title="reasonSaid(next, sayDay)"
            data-next
            @click="emit('schedule')"
          >
            next about {{ sayDay(next.day) }}
          </button></template
        ><span v-else class="font-semibold text-alert"> · archived</span>
      </p>
    </div>
    <Menu as="div" class="no-print relative shrink-0">
      <MenuButton class="press press-quiet min-h-11 px-3" aria-label="More for this client" data-more>
        <Ellipsis class="size-5" aria-hidden="true" />
      </MenuButton>
      <MenuItems class="absolute right-0 z-20 mt-1 w-60 rounded border border-ink bg-sheet py-1 focus:outline-none">
        <MenuItem v-slot="{ active }">
          <NuxtLink :to="`/clients/${client.id}/edit`" class="block px-4 py-2.5" :class="{ 'bg-wash': active }"
            >Edit details</NuxtLink
          >
        </MenuItem>
        <MenuItem v-if="measured" v-slot="{ active }">
          <a :href="takeHome" class="block px-4 py-2.5" :class="{ 'bg-wash': active }" download>Page to take home</a>
        </MenuItem>
        <MenuItem v-slot="{ active }">
          <NuxtLink :to="`/clients/${client.id}/from-home`" class="block px-4 py-2.5" :class="{ 'bg-wash': active }"
            >Client’s link</NuxtLink
          >
        </MenuItem>
        <MenuItem v-slot="{ active }">
          <NuxtLink :to="`/clients/${client.id}/paper`" class="block px-4 py-2.5" :class="{ 'bg-wash': active }"
            >Paper sheet</NuxtLink
          >
        </MenuItem>
        <MenuItem v-if="measured" v-slot="{ active }">
          <button
            class="block w-full px-4 py-2.5 text-left"
            :class="{ 'bg-wash': active }"
            :aria-pressed="bare"
            data-numbers
            @click="emit('numbers')"
          >
            {{ bare ? 'Show numbers' : 'Hide numbers' }}
          </button>
        </MenuItem>
        <MenuItem v-if="mayLeave" v-slot="{ active }">
          <button class="block w-full px-4 py-2.5 text-left" :class="{ 'bg-wash': active }" @click="emit('leave')">
            Percent and masses
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
    <NuxtLink v-if="open" :to="`/measure/${open.id}`" class="no-print press press-first min-h-11 shrink-0"
      >Go on measuring</NuxtLink
    >
    <NuxtLink
      v-else-if="!client.archived"
      :to="`/clients/${client.id}/measure`"
      class="no-print press press-first min-h-11 shrink-0"
      >Measure</NuxtLink
    >
  </div>
</template>
