<script setup lang="ts">
import { DRILL_IDS, DRILLS, learningCurve, nextLevel, type DrillId } from '#core/drills'
import { formatNumber } from '#core/units'
import type { DrillRound } from '#shared/schemas/drill'
import { drills } from '~/bench-calls'

useHead({ title: 'Drills, Oak Pinch' })
const rounds = ref<DrillRound[] | null>(null)
useOpening(async () => {
  rounds.value = await drills.rounds()
})
const of = (drill: DrillId) => (rounds.value ?? []).filter((round) => round.drill === drill)
const lines = computed(() =>
  DRILL_IDS.map((id) => {
    const own = of(id)
    const level = own.at(-1)?.level ?? 1
    const scores = own.map(({ score }) => score)
    const next = nextLevel(
      id,
      level,
      own.filter((round) => round.level === level).map(({ score }) => score),
    )
    return { ...DRILLS[id], scores, level: next, now: learningCurve(scores).at(-1) ?? null, last: own.at(-1) ?? null }
  }),
)
</script>

<template>
  <section v-if="rounds" class="w-full px-4 py-4 sm:px-6" aria-label="Drills">
    <p class="mb-2 max-w-prose text-faded">Practice without a client: seconds a round, harder as one gets better.</p>
    <ul>
      <li v-for="one in lines" :key="one.id" class="border-b border-rule">
        <NuxtLink
          :to="`/bench/drills/${one.id}`"
          class="grid items-center gap-x-6 gap-y-1 py-3 sm:grid-cols-[minmax(0,2fr)_minmax(0,2fr)_9rem]"
          :data-drill="one.id"
        >
          <span class="min-w-0">
            <span class="block text-xl font-bold">{{ one.name }}</span>
            <span class="block text-[15px] text-faded">{{ one.about }}</span>
          </span>
          <span class="block h-20 min-w-0">
            <LearningCurve v-if="one.scores.length > 0" class="h-full" :drill="one.id" :scores="one.scores" />
            <span v-else class="text-faded">no round yet</span>
          </span>
          <span class="text-right">
            <template v-if="one.now">
              <span class="figure text-3xl font-bold">{{ formatNumber(one.now.level, one.digits) }}</span>
              <span class="text-faded">{{ ' ' }}{{ one.unit }}</span>
            </template>
            <span class="block text-[15px] text-faded">level {{ one.level }}, {{ one.scores.length }} rounds</span>
          </span>
        </NuxtLink>
      </li>
    </ul>
  </section>
</template>
