<script setup lang="ts">
import { useForm } from '@tanstack/vue-form'
import { staffInput, type StaffInput, type StaffMember } from '#shared/schemas/account'
import { useMe } from '~/stores/me'

useHead({ title: 'Studio, Oak Pinch' })

const store = useMe()
const staff = ref<StaffMember[]>([])
const problem = ref<string | null>(null)
const adding = ref(false)
const problems = useProblems(['name', 'email', 'password', 'role'])
const isLead = computed(() => store.me?.staff.role === 'lead')

const own = computed(() => store.me?.own ?? { massUnit: null, lengthUnit: null })
const studio = computed(() => store.me?.studio ?? { name: '', massUnit: 'kg' as const, lengthUnit: 'cm' as const })
const ownMass = computed(() => own.value.massUnit ?? 'studio')
const ownLength = computed(() => own.value.lengthUnit ?? 'studio')

onMounted(async () => {
  await tell(async () => {
    staff.value = await $fetch<StaffMember[]>('/api/staff')
  })
})

async function tell(action: () => Promise<void>) {
  problem.value = null
  try {
    await action()
  } catch (error) {
    problem.value = problemOf(error).message
  }
}

function chosen<Unit extends string>(value: Unit | 'studio' | null): Unit | null {
  return value === 'studio' ? null : value
}

const FIELDS = [
  { name: 'name', label: 'Name', type: 'text', autocomplete: 'off' },
  { name: 'email', label: 'E-mail address', type: 'email', autocomplete: 'off' },
  { name: 'password', label: 'First password', type: 'password', autocomplete: 'new-password' },
] as const
const empty: StaffInput = { name: '', email: '', password: '', role: 'coach' }
const form = useForm({
  defaultValues: empty,
  validators: { onSubmit: staffInput },
  async onSubmit({ value }) {
    problems.clear()
    try {
      const added = await $fetch<StaffMember>('/api/staff', { method: 'POST', body: value })
      staff.value = [...staff.value, added]
      adding.value = false
      form.reset()
    } catch (error) {
      problems.problem.value = problemOf(error)
    }
  },
})
</script>

<template>
  <div class="mx-auto w-full max-w-5xl px-4 py-6 sm:px-6">
    <h1 class="text-3xl font-bold">{{ studio.name }}</h1>
    <p v-if="problem" role="alert" class="mt-3 font-semibold text-alert">{{ problem }}</p>
    <div class="mt-6 grid gap-x-12 gap-y-8 lg:grid-cols-2">
      <section aria-labelledby="units" class="grid content-start gap-4">
        <h2 id="units" class="border-b-2 border-ink pb-2 text-lg font-bold">Units</h2>
        <p class="text-faded">Folds are always in millimetres. Numbers are kept as they were entered.</p>
        <ChoiceField
          label="Weight, for you"
          name="ownMass"
          :options="[{ value: 'studio', label: `as the studio (${studio.massUnit})` }, ...MASS_OPTIONS]"
          :model-value="ownMass"
          @update:model-value="tell(() => store.setOwnUnits({ ...own, massUnit: chosen($event) }))"
        />
        <ChoiceField
          label="Height and girths, for you"
          name="ownLength"
          :options="[{ value: 'studio', label: `as the studio (${studio.lengthUnit})` }, ...LENGTH_OPTIONS]"
          :model-value="ownLength"
          @update:model-value="tell(() => store.setOwnUnits({ ...own, lengthUnit: chosen($event) }))"
        />
        <template v-if="isLead">
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

      <HabitSettings />
      <CaliperList />
      <DeviceSettings />
      <section aria-labelledby="people" class="grid content-start gap-4">
        <h2 id="people" class="border-b-2 border-ink pb-2 text-lg font-bold">People</h2>
        <ul>
          <li v-for="person in staff" :key="person.id" class="flex items-baseline gap-3 border-b border-rule py-2">
            <span class="font-semibold">{{ person.name }}</span>
            <span class="min-w-0 flex-1 truncate text-faded">{{ person.email }}</span>
            <span>{{ person.role === 'lead' ? 'lead coach' : 'coach' }}</span>
          </li>
        </ul>
        <button v-if="isLead && !adding" class="press justify-self-start" @click="adding = true">Add a coach</button>
        <form v-if="adding" class="grid gap-4" novalidate @submit.prevent="form.handleSubmit()">
          <form.Field v-for="shown in FIELDS" v-slot="{ field, state }" :key="shown.name" :name="shown.name">
            <TextField
              :label="shown.label"
              :name="shown.name"
              :problem="firstError(state.meta.errors) ?? problems.byField.value.get(shown.name)"
              :type="shown.type"
              :autocomplete="shown.autocomplete"
              :model-value="state.value"
              @update:model-value="field.handleChange($event)"
            />
          </form.Field>
          <form.Field v-slot="{ field, state }" name="role">
            <ChoiceField
              label="Role"
              name="role"
              :options="[
                { value: 'coach', label: 'Coach' },
                { value: 'lead', label: 'Lead coach' },
              ]"
              :model-value="state.value"
              @update:model-value="$event && field.handleChange($event)"
            />
          </form.Field>
          <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
          <div class="flex gap-2">
            <button class="press press-first">Add</button>
            <button type="button" class="press press-quiet" @click="adding = false">Leave</button>
          </div>
        </form>
      </section>
    </div>
  </div>
</template>
