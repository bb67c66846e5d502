<script setup lang="ts">
import type { Progress, TrainingPlanInput } from '#shared/schemas/progress'
import { progress as calls } from '~/bench-calls'
import { useMe } from '~/stores/me'

useHead({ title: 'Bench, Oak Pinch' })
const store = useMe()
const all = ref<Progress[] | null>(null)
const chosenId = ref(store.me?.staff.id ?? '')
useOpening(async () => {
  all.value = await calls.list()
  if (!all.value.some(({ staffId }) => staffId === chosenId.value)) chosenId.value = all.value[0]?.staffId ?? ''
})
const chosen = computed(() => all.value?.find(({ staffId }) => staffId === chosenId.value) ?? null)
async function plan(given: TrainingPlanInput) {
  all.value = await calls.plan(given)
}
</script>

<template>
  <div v-if="all" class="w-full px-4 py-4 sm:px-6">
    <EverybodyTable v-if="all.length > 1" v-model="chosenId" :all="all" class="mb-6" />
    <h2 v-if="chosen && all.length > 1" class="mb-3 text-2xl font-bold">{{ chosen.name }}</h2>
    <ProgressPanel v-if="chosen" :key="chosen.staffId" :progress="chosen" :may-plan="store.isLead" :plan="plan" />
  </div>
</template>
