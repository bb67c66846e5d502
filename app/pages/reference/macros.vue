<script setup lang="ts">
import { parseIntake } from '#core/energy'
import { LIMITS } from '#core/safety'
import { massToKg, parseMass } from '#core/units'
import { useMe } from '~/stores/me'

useHead({ title: 'Macro sheet, Oak Pinch' })

const store = useMe()
const typed = reactive({ kcal: '2200', weight: '' })
const kcal = computed(() => {
  const parsed = parseIntake(typed.kcal)
  if ('problem' in parsed) return parsed
  return parsed.kcal < LIMITS.intake.value.female
    ? {
        problem: `Under ${LIMITS.intake.value.female.toLocaleString('en-US')} kcal a day (men ${LIMITS.intake.value.male.toLocaleString('en-US')}) a registered dietitian or doctor decides, not a coach.`,
      }
    : parsed
})
const weight = computed(() => (typed.weight.trim() === '' ? null : parseMass(typed.weight, store.units.mass)))
const weightKg = computed(() =>
  weight.value?.kind === 'value'
    ? massToKg(weight.value.value, weight.value.unit)
    : store.units.mass === 'kg'
      ? 70
      : 72.6,
)
</script>

<template>
  <div class="grid max-w-3xl gap-4 px-4 py-4 sm:px-6">
    <EnergyOfferGate>
      <div class="grid items-start gap-3 sm:grid-cols-2">
        <TextField
          v-model="typed.kcal"
          label="Kcal a day"
          name="sheetKcal"
          class="figure"
          inputmode="numeric"
          :problem="'problem' in kcal ? kcal.problem : undefined"
        />
        <TextField
          v-model="typed.weight"
          :label="`Body weight, ${store.units.mass}`"
          name="sheetWeight"
          class="figure"
          inputmode="decimal"
          :placeholder="store.units.mass === 'kg' ? '70' : '160'"
          :problem="weight && weight.kind !== 'value' ? weight.sentence : undefined"
        />
      </div>
      <MacroSheet v-if="'kcal' in kcal" :kcal="kcal.kcal" :weight-kg="weightKg" :lean-kg="null" />
    </EnergyOfferGate>
  </div>
</template>
