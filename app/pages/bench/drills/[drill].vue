<script setup lang="ts">
import type { Component } from 'vue'
import { DRILL_IDS, type DrillId } from '#core/drills'
import { formatNumber } from '#core/units'

/** A drill fills the screen: the instrument, then the score beside one's own past. */
const drill = DRILL_IDS.find((id) => id === useRoute().params.drill) ?? ('find-site' as DrillId)
const INSTRUMENTS: Record<DrillId, Component> = {
  'find-site': defineAsyncComponent(() => import('~/components/bench/drills/FindSite.vue')),
  'read-dial': defineAsyncComponent(() => import('~/components/bench/drills/ReadDial.vue')),
  count: defineAsyncComponent(() => import('~/components/bench/drills/CountDrill.vue')),
  'call-write': defineAsyncComponent(() => import('~/components/bench/drills/CallWrite.vue')),
  'whole-client': defineAsyncComponent(() => import('~/components/bench/drills/WholeClient.vue')),
}
const { facts, scores, level, now, problem, load, keep } = useDrill(drill)
/** The level of the round on the screen: the next one begins at the new. */
const playing = ref(1)
const ready = ref(false)
const done = ref(false)
const instrument = useTemplateRef<{ again: () => void }>('instrument')
useOpening(async () => {
  await load()
  playing.value = level.value
  ready.value = true
})
useHead({ title: `${facts.name}, Oak Pinch` })

async function finished(score: number, detail: Record<string, number | string>) {
  done.value = true
  await keep(score, detail)
}

function again() {
  playing.value = level.value
  done.value = false
  void nextTick(() => instrument.value?.again())
}
</script>

<template>
  <section
    v-if="ready"
    class="flex w-full flex-1 flex-col gap-3 px-4 py-3 sm:px-6"
    :aria-label="facts.name"
    :data-level="playing"
  >
    <div class="flex flex-wrap items-baseline gap-x-5">
      <NuxtLink to="/bench/drills" class="min-h-9 text-faded underline underline-offset-4">All drills</NuxtLink>
      <h2 class="text-2xl font-bold">{{ facts.name }}</h2>
      <span class="text-faded">level {{ playing }} of 5</span>
      <span v-if="now" class="ml-auto text-faded"
        >your level <span class="figure font-semibold text-ink">{{ formatNumber(now.level, facts.digits) }}</span>
        {{ facts.unit }}, {{ scores.length }} rounds</span
      >
    </div>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    <component :is="INSTRUMENTS[drill]" ref="instrument" :level="playing" @done="finished">
      <div v-if="done" class="grid gap-3">
        <div class="h-24"><LearningCurve class="h-full" :drill="drill" :scores="scores" /></div>
        <p v-if="level !== playing" class="text-lg font-semibold">
          {{ level > playing ? `On to level ${level}.` : `Back to level ${level}.` }}
        </p>
        <button
          type="button"
          class="press press-first min-h-14 justify-self-start px-8 text-lg"
          data-again
          @click="again"
        >
          Again
        </button>
      </div>
    </component>
  </section>
</template>
