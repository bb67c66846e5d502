<script setup lang="ts">
/** A page of parts with addresses of their own: its heading, the way between them, and the part itself. */
const props = defineProps<{
  title: string
  /** What the way between the parts is called. */
  label: string
  parts: readonly { to: string; name: string }[]
}>()

const route = useRoute()
/** The part whose address leads furthest towards this one. */
const here = computed(
  () =>
    props.parts
      .filter(({ to }) => route.path === to || route.path.startsWith(`${to}/`))
      .sort((a, b) => b.to.length - a.to.length)[0]?.to,
)
</script>

<template>
  <div class="flex flex-1 flex-col">
    <div class="no-print flex flex-wrap items-end gap-x-8 border-b border-rule px-4 pt-3 sm:px-6">
      <h1 class="pb-2 text-3xl font-bold">{{ title }}</h1>
      <nav :aria-label="label" class="flex gap-x-6 overflow-x-auto">
        <NuxtLink
          v-for="part in parts"
          :key="part.to"
          :to="part.to"
          :aria-current="part.to === here ? 'page' : undefined"
          class="flex min-h-11 items-center border-b-3 border-transparent whitespace-nowrap aria-[current]:border-ink aria-[current]:stroke-bold"
        >
          {{ part.name }}
        </NuxtLink>
      </nav>
    </div>
    <NuxtPage />
  </div>
</template>
