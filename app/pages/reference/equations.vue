<script setup lang="ts">
import { EQUATIONS, findEquation, usesFolds } from '#core/equations'
import { useMe } from '~/stores/me'

useHead({ title: 'Equations, Oak Pinch' })

const store = useMe()
const route = useRoute()
const router = useRouter()
const chosen = computed(() => findEquation(String(route.query.equation ?? '')) ?? EQUATIONS[0])
const groups = [
  { name: 'Folds', equations: EQUATIONS.filter(usesFolds) },
  { name: 'Tape and scale', equations: EQUATIONS.filter((one) => !usesFolds(one)) },
]

function choose(equation: string) {
  void router.replace({ query: { equation } })
}
</script>

<template>
  <div class="grid flex-1 lg:grid-cols-[400px_1fr]">
    <nav
      aria-label="Equations"
      class="overflow-y-auto border-rule bg-sheet px-3 py-3 max-lg:max-h-64 max-lg:border-b lg:sticky lg:top-0 lg:h-[calc(100dvh-110px)] lg:border-r"
      tabindex="0"
    >
      <div v-for="group in groups" :key="group.name" class="mb-3">
        <h2 class="px-2 text-sm font-semibold text-faded">{{ group.name }}</h2>
        <ul>
          <li v-for="one in group.equations" :key="one.id">
            <button
              class="w-full rounded px-2 py-0.5 text-left text-[15px] max-lg:min-h-10"
              :class="
                one.id === chosen?.id ? 'bg-wash font-bold shadow-[inset_3px_0_0_var(--signal)]' : 'hover:bg-wash'
              "
              :aria-current="one.id === chosen?.id ? 'true' : undefined"
              @click="choose(one.id)"
            >
              {{ one.label }}
            </button>
          </li>
        </ul>
      </div>
    </nav>
    <div v-if="chosen" class="px-4 py-4 sm:px-8">
      <EquationFacts :equation="chosen" />
      <TryEquation :key="chosen.id" :equation="chosen" :units="store.units" />
      <p class="mt-6 max-w-prose border-t border-rule pt-3 text-sm text-faded">
        S is the sum of the folds in mm, girths and height in cm, lb the weight in pounds, BMI in kg/m², s is 1 for
        women and 0 for men, b is 1 where the published term for Black athletes is switched on. Nothing is rounded in
        between.
      </p>
    </div>
  </div>
</template>
