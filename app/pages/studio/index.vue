<script setup lang="ts">
import { WORTHWHILE } from '#core/following'
import { useMe } from '~/stores/me'

useHead({ title: 'Studio, Oak Pinch' })

const store = useMe()
const { problem, tell } = useTelling()
const own = computed(() => store.me?.own ?? { massUnit: null, lengthUnit: null })
const studio = computed(
  () =>
    store.me?.studio ?? {
      name: '',
      massUnit: 'kg' as const,
      lengthUnit: 'cm' as const,
      timeZone: studioZone(),
      worthwhileFatKg: WORTHWHILE.fatKg,
      worthwhileSumPercent: WORTHWHILE.sumPercent,
    },
)

function chosen<Unit extends string>(value: Unit | 'studio' | null): Unit | null {
  return value === 'studio' ? null : value
}
</script>

<template>
  <div class="w-full px-4 py-6 sm:px-6">
    <p v-if="problem" role="alert" class="mb-4 font-semibold text-alert">{{ problem }}</p>
    <div class="grid gap-x-12 gap-y-10 lg:grid-cols-2 xl:grid-cols-3">
      <section aria-labelledby="units" class="grid content-start gap-4">
        <h2 id="units" class="border-b-2 border-ink pb-2 text-lg font-bold">Units</h2>
        <p class="text-faded">Folds are always in millimetres. Numbers are kept as they were entered.</p>
        <ChoiceField
          label="Weight, for you"
          name="ownMass"
          :options="[{ value: 'studio', label: `as the studio (${studio.massUnit})` }, ...MASS_OPTIONS]"
          :model-value="own.massUnit ?? 'studio'"
          @update:model-value="tell(() => store.setOwnUnits({ ...own, massUnit: chosen($event) }))"
        />
        <ChoiceField
          label="Height and girths, for you"
          name="ownLength"
          :options="[{ value: 'studio', label: `as the studio (${studio.lengthUnit})` }, ...LENGTH_OPTIONS]"
          :model-value="own.lengthUnit ?? 'studio'"
          @update:model-value="tell(() => store.setOwnUnits({ ...own, lengthUnit: chosen($event) }))"
        />
        <template v-if="store.isLead">
          <ChoiceField
            label="Weight, for the studio"
            name="studioMass"
            :options="MASS_OPTIONS"
            :model-value="studio.massUnit"
            @update:model-value="$event && tell(() => store.changeStudio({ ...studio, massUnit: $event }))"
          />
          <ChoiceField
            label="Height and girths, for the studio"
            name="studioLength"
            :options="LENGTH_OPTIONS"
            :model-value="studio.lengthUnit"
            @update:model-value="$event && tell(() => store.changeStudio({ ...studio, lengthUnit: $event }))"
          />
        </template>
      </section>
      <section aria-labelledby="days" class="grid content-start gap-4">
        <h2 id="days" class="border-b-2 border-ink pb-2 text-lg font-bold">Days</h2>
        <p class="text-faded">
          Today, ages, weeks and what is due are counted where the studio is. A check-in keeps the day it was.
        </p>
        <ZoneField
          v-if="store.isLead"
          :zone="studio.timeZone"
          @choose="tell(() => store.changeStudio({ ...studio, timeZone: $event }))"
        />
        <p v-else>{{ studio.timeZone }}</p>
        <p class="text-[15px]">There it is {{ sayTime(Date.now(), 'EEEE d MMMM, HH:mm') }}.</p>
        <HabitSettings class="mt-6" />
        <WorthwhileField
          v-if="store.isLead"
          class="mt-6"
          :fat-kg="studio.worthwhileFatKg ?? null"
          :sum-percent="studio.worthwhileSumPercent ?? null"
          :units="store.units"
          hint="What is real but smaller than this is called real but small. A client can have their own."
          :save="
            (own) =>
              store.changeStudio({
                ...studio,
                worthwhileFatKg: own.fatKg ?? WORTHWHILE.fatKg,
                worthwhileSumPercent: own.sumPercent ?? WORTHWHILE.sumPercent,
              })
          "
        />
      </section>
      <div v-if="!store.isRecorder" class="grid content-start gap-10">
        <EnergyOffer
          :since="store.me?.energySince ?? null"
          :lead="store.isLead"
          @offer="tell(() => store.offerEnergy($event))"
        />
        <CaliperList />
        <DeviceSettings />
      </div>
    </div>
  </div>
</template>
