<script setup lang="ts">
import { kgToMass, massToKg, formatNumber, parseNumber, type Units } from '#core/units'
import type { WorthwhileInput } from '#shared/schemas/following'

/** The smallest change worth acting on: fat by mass, the sum of folds by its share; an empty field: the studio's. */
const props = defineProps<{
  fatKg: number | null
  sumPercent: number | null
  units: Units
  hint: string
  save: (own: WorthwhileInput) => Promise<unknown>
}>()
const shown = (value: number | null, scale: (value: number) => number = (own) => own) =>
  value === null ? '' : formatNumber(scale(value), 1)
const fat = ref('')
const sum = ref('')
watch(
  () => [props.fatKg, props.sumPercent, props.units.mass] as const,
  ([kg, percent]) => {
    fat.value = shown(kg, (own) => kgToMass(own, props.units.mass))
    sum.value = shown(percent)
  },
  { immediate: true },
)
const kept = ref(false)
const wrong = ref<{ fat?: string; sum?: string }>({})
const { problem, tell } = useTelling()

/** A number of at least zero, null for an empty field, NaN for anything else. */
function read(text: string): number | null {
  if (text.trim() === '') return null
  const value = parseNumber(text)
  return value >= 0 ? value : NaN
}

async function keep() {
  const [mass, share] = [read(fat.value), read(sum.value)]
  wrong.value = {
    ...(Number.isNaN(mass) ? { fat: 'Please give a number, such as 0.5.' } : {}),
    ...(Number.isNaN(share) || (share ?? 0) > 50 ? { sum: 'Please give a share of at most 50 %.' } : {}),
  }
  if (wrong.value.fat || wrong.value.sum) return
  kept.value = await tell(() =>
    props.save({ fatKg: mass === null ? null : massToKg(mass, props.units.mass), sumPercent: share }),
  )
}
</script>

<template>
  <form class="grid gap-3" data-worthwhile @submit.prevent="keep">
    <h3 class="font-semibold">Smallest change worth acting on</h3>
    <p class="text-[15px] text-faded">{{ hint }}</p>
    <div class="grid grid-cols-2 gap-3">
      <TextField
        v-model="fat"
        :label="`Fat, ${units.mass}`"
        name="worthwhileFat"
        inputmode="decimal"
        :problem="wrong.fat"
        @input="kept = false"
      />
      <TextField
        v-model="sum"
        label="Sum of folds, %"
        name="worthwhileSum"
        inputmode="decimal"
        :problem="wrong.sum"
        @input="kept = false"
      />
    </div>
    <div class="flex items-center gap-3">
      <button class="press">Keep</button>
      <span v-if="kept" role="status" class="text-[15px] text-faded">Kept.</span>
    </div>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
  </form>
</template>
