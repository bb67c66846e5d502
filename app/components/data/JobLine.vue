<script setup lang="ts">
import type { DataJob } from '#shared/schemas/data'

/** Long work under way: what it is, how far, and a way to give it up. */
const props = defineProps<{ job: DataJob }>()
const emit = defineEmits<{ stop: [] }>()
const step = computed(() => props.job.step)
const share = computed(() =>
  step.value && step.value.total > 0 ? Math.min(1, step.value.done / step.value.total) : null,
)
const said = computed(() =>
  step.value
    ? `${step.value.done.toLocaleString('en')}${step.value.total > 0 ? ` of ${step.value.total.toLocaleString('en')}` : ''} ${step.value.of}`
    : 'beginning',
)
</script>

<template>
  <div class="grid gap-1 border border-rule bg-sheet p-3" role="status" data-job>
    <p class="flex flex-wrap items-baseline gap-x-3">
      <strong class="min-w-0 break-all">{{ job.about }}</strong>
      <span class="figure text-[15px] text-faded">{{ said }}</span>
    </p>
    <div class="flex items-center gap-3">
      <div
        class="h-2 flex-1 overflow-hidden rounded bg-wash"
        role="progressbar"
        :aria-label="job.about"
        aria-valuemin="0"
        aria-valuemax="100"
        :aria-valuenow="share === null ? undefined : Math.round(share * 100)"
      >
        <div
          class="h-full bg-signal transition-[width] duration-300"
          :class="{ 'w-1/3 motion-safe:animate-pulse': share === null }"
          :style="share === null ? {} : { width: `${share * 100}%` }"
        />
      </div>
      <button type="button" class="press press-quiet min-h-9" @click="emit('stop')">Give up</button>
    </div>
  </div>
</template>
