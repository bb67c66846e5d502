<script setup lang="ts">
defineProps<{
  name: string
  value: string | null
  unit: string
  change: string | null
  since: string | null
  colour: string
}>()
</script>

<template>
  <div class="border-rule px-4 py-3 sm:px-6">
    <dt class="text-[15px] text-faded">{{ name }}</dt>
    <dd>
      <span v-if="value !== null" :class="colour">
        <span class="figure text-4xl leading-tight font-bold sm:text-5xl">{{ value }}</span>
        <span class="ml-1.5 text-faded">{{ unit }}</span>
      </span>
      <span v-else class="text-xl text-faded">not known yet</span>
      <slot>
        <span v-if="change" class="mt-0.5 block text-[15px]">
          <span class="figure text-lg font-semibold">{{ change }}</span>
          <span class="text-faded"> since {{ since }}</span>
        </span>
        <span v-else class="mt-0.5 block text-[15px] text-faded">first check-in</span>
      </slot>
    </dd>
  </div>
</template>
