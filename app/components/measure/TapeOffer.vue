<script setup lang="ts">
import type { Composition } from '#core/composition/checkin'
import { isFold } from '#core/sites'
import type { CheckinRecord } from '#shared/schemas/checkin'
import { protocolOf } from '#shared/checkin-facts'

/** The moment folds turn out too large to lift at a first visit: the tape, one press away. */
const props = defineProps<{ result: Composition; first: boolean; record: CheckinRecord }>()
const emit = defineEmits<{ over: [protocolId: 'navy-tape'] }>()

const caution = computed(() => props.result.cautions.find(({ effects }) => effects.includes('tape-first')))
const isOffered = computed(
  () => props.first && caution.value !== undefined && protocolOf(props.record).sites.some((site) => isFold(site)),
)
</script>

<template>
  <div
    v-if="isOffered"
    class="flex flex-wrap items-center gap-x-4 gap-y-2 border-l-4 border-fat pl-3"
    role="status"
    data-tape-offer
  >
    <p class="min-w-0 flex-1 text-[15px]">{{ caution?.sentence }}</p>
    <button type="button" class="press" @click="emit('over', 'navy-tape')">Go over to the tape</button>
  </div>
</template>
