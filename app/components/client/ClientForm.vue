<script setup lang="ts">
import { useForm, useStore } from '@tanstack/vue-form'
import { FLAGS, SHORT_FLAGS, type Flag } from '#core/cautions'
import { ageInYears, isDay } from '#core/calendar'
import { LIMITS } from '#core/safety'
import { ANCESTRIES, type Ancestry } from '#core/composition'
import type { LengthUnit } from '#core/units'
import { clientInput, type Client, type ClientInput } from '#shared/schemas/client'
import { toClientInput, typedClientSchema, type TypedClient } from './typed-client'

const props = defineProps<{
  start: TypedClient
  /** Height as stored, for a form that did not touch it. */
  heightCm: number | null
  lengthUnit: LengthUnit
  action: string
  save: (input: ClientInput) => Promise<void>
}>()
const emit = defineEmits<{ conflict: [stored: Client, mine: ClientInput] }>()

/** Some equations and conversions were made for one group. */
const GROUP_NAMES: Record<Ancestry, string> = {
  black: 'Black',
  hispanic: 'Hispanic',
  'american-indian': 'American Indian',
  japanese: 'Japanese',
  white: 'White',
  other: 'another',
}

const GROUPS: { id: Ancestry | ''; name: string }[] = [
  { id: '', name: 'not on record' },
  ...ANCESTRIES.map((id) => ({ id, name: GROUP_NAMES[id] })),
]

const FIELDS = [
  'name',
  'sex',
  'birthDate',
  'heightCm',
  'usualSide',
  'notes',
  'consentOn',
  'guardianName',
  'guardianConsentOn',
  'guardianPhotoConsentOn',
]
const MORE_FLAGS = (Object.keys(FLAGS) as Flag[]).filter((flag) => !SHORT_FLAGS.includes(flag))
const problems = useProblems(FIELDS)
const today = todayHere()

const form = useForm({
  defaultValues: { ...props.start },
  validators: { onSubmit: typedClientSchema(props.lengthUnit) },
  async onSubmit({ value }) {
    const kept = { text: props.start.height, cm: props.heightCm }
    const mine = clientInput.parse(toClientInput(value, props.lengthUnit, kept))
    await problems.send(() => props.save(mine))
    const stored = problems.problem.value?.stored
    if (stored) emit('conflict', stored as Client, mine)
  },
})

const typed = useStore(form.store, ({ values }) => values)
/** Asked of a guardian, while the birth date says so. */
const isMinor = computed(
  () => isDay(typed.value.birthDate) && ageInYears(typed.value.birthDate, today) < LIMITS.adultYears.value,
)

/** A consent given now is dated today. */
function dateConsent(
  given: boolean,
  day: 'consentOn' | 'photoConsentOn' | 'guardianConsentOn' | 'guardianPhotoConsentOn' | 'preparationBegunOn',
) {
  if (given && !form.getFieldValue(day)) form.setFieldValue(day, today)
}

function told(errors: readonly unknown[], field: string): string | undefined {
  return firstError(errors) ?? problems.byField.value.get(field)
}

function toggled(flags: readonly Flag[], flag: Flag): Flag[] {
  return flags.includes(flag) ? flags.filter((one) => one !== flag) : [...flags, flag]
}

function textOf(event: Event): string {
  return (event.target as HTMLInputElement).value
}
</script>

<template>
  <form class="grid gap-5" novalidate @submit.prevent="form.handleSubmit()">
    <div class="grid gap-x-10 gap-y-5 lg:grid-cols-2">
      <div class="grid content-start gap-5">
        <form.Field v-slot="slot" name="name">
          <FormLine v-bind="slot" label="Name" :problems="problems" autocomplete="off" />
        </form.Field>
        <form.Field v-slot="{ field, state }" name="sex">
          <ChoiceField
            label="Sex for the equations"
            name="sex"
            hint="The published equations were made on women and men apart and differ by several points; ask which the client wants used."
            :options="[
              { value: 'female', label: 'Women’s' },
              { value: 'male', label: 'Men’s' },
            ]"
            :problem="told(state.meta.errors, 'sex')"
            :model-value="state.value"
            @update:model-value="field.handleChange($event)"
          />
        </form.Field>
        <div class="grid gap-5 sm:grid-cols-2">
          <form.Field v-slot="slot" name="birthDate">
            <FormLine v-bind="slot" label="Birth date" :problems="problems" type="date" :max="today" />
          </form.Field>
          <form.Field v-slot="slot" name="height">
            <FormLine
              v-bind="slot"
              label="Height"
              :problems="problems"
              asked="heightCm"
              inputmode="text"
              :placeholder="lengthUnit === 'cm' ? '174, 1.74 m or 5 ft 8 in' : '5 ft 8 1/2 in or 174 cm'"
            />
          </form.Field>
        </div>
        <div class="grid gap-5 sm:grid-cols-2">
          <form.Field v-slot="{ field, state }" name="athlete">
            <ChoiceField
              label="Athlete"
              name="athlete"
              :options="[
                { value: 'yes', label: 'Yes' },
                { value: 'no', label: 'No' },
              ]"
              :model-value="state.value"
              @update:model-value="field.handleChange($event)"
            />
          </form.Field>
          <form.Field v-slot="{ field, state }" name="ancestry">
            <ListField
              label="Population group, if wanted"
              name="ancestry"
              :options="GROUPS"
              :model-value="state.value"
              @update:model-value="field.handleChange($event)"
            />
          </form.Field>
        </div>
        <form.Field v-slot="{ field, state }" name="usualSide">
          <ChoiceField
            label="Side measured"
            name="usualSide"
            hint="The right, unless a limb there is abnormal; then always the left."
            :options="[
              { value: 'right', label: 'Right' },
              { value: 'left', label: 'Left' },
            ]"
            :problem="told(state.meta.errors, 'usualSide')"
            :model-value="state.value"
            @update:model-value="$event && field.handleChange($event)"
          />
        </form.Field>
      </div>
      <div class="grid content-start gap-5">
        <fieldset class="grid gap-3 border-l-4 border-rule pl-4">
          <legend class="font-semibold">Consent</legend>
          <p class="text-sm text-faded">
            Explain what is touched and why, offer a chaperone, a private place or tape only. Never a condition for
            training.
          </p>
          <form.Field v-slot="{ field, state }" name="consented">
            <TickField
              name="consented"
              :model-value="state.value"
              @update:model-value="(field.handleChange($event), dateConsent($event, 'consentOn'))"
            >
              The client agrees to be measured by touch and to these data being kept.
            </TickField>
          </form.Field>
          <form.Field v-slot="slot" name="consentOn">
            <FormLine v-bind="slot" label="Agreed on" :problems="problems" type="date" class="max-w-52" :max="today" />
          </form.Field>
          <template v-if="isMinor || typed.guardianConsent">
            <form.Field v-slot="{ field, state }" name="guardianConsent">
              <TickField
                name="guardianConsent"
                :model-value="state.value"
                @update:model-value="(field.handleChange($event), dateConsent($event, 'guardianConsentOn'))"
              >
                Under 18: a guardian agrees to the measuring.
              </TickField>
            </form.Field>
            <div v-if="typed.guardianConsent" class="grid gap-4 sm:grid-cols-2">
              <form.Field v-slot="slot" name="guardianName">
                <FormLine v-bind="slot" label="Guardian" :problems="problems" autocomplete="off" />
              </form.Field>
              <form.Field v-slot="slot" name="guardianConsentOn">
                <FormLine v-bind="slot" label="Guardian agreed on" :problems="problems" type="date" :max="today" />
              </form.Field>
            </div>
          </template>
        </fieldset>
        <fieldset class="grid gap-3 border-l-4 border-rule pl-4">
          <legend class="font-semibold">Photographs</legend>
          <form.Field v-slot="{ field, state }" name="photoConsented">
            <TickField
              name="photoConsented"
              :model-value="state.value"
              @update:model-value="(field.handleChange($event), dateConsent($event, 'photoConsentOn'))"
            >
              The client agrees to be photographed. Asked for apart, and never shown to anyone else<template
                v-if="state.value"
              >
                (agreed on {{ form.getFieldValue('photoConsentOn') || today }})</template
              >.
            </TickField>
          </form.Field>
          <form.Field
            v-if="isMinor || typed.guardianPhotoConsented"
            v-slot="{ field, state }"
            name="guardianPhotoConsented"
          >
            <TickField
              name="guardianPhotoConsented"
              :model-value="state.value"
              @update:model-value="(field.handleChange($event), dateConsent($event, 'guardianPhotoConsentOn'))"
            >
              Under 18: the guardian agrees to photographs, apart from the measuring<template v-if="state.value">
                (agreed on {{ form.getFieldValue('guardianPhotoConsentOn') || today }})</template
              >. None are taken at home under 16.
            </TickField>
          </form.Field>
        </fieldset>
        <form.Field v-slot="{ field, state }" name="flags">
          <fieldset class="grid gap-2 border-l-4 border-rule pl-4">
            <legend class="font-semibold">To mind</legend>
            <FlagTick
              v-for="flag in SHORT_FLAGS"
              :key="flag"
              :flag="flag"
              :on="state.value.includes(flag)"
              @toggle="field.handleChange(toggled(state.value, flag))"
            />
            <details :open="MORE_FLAGS.some((flag) => state.value.includes(flag))" data-more-flags>
              <summary class="min-h-10 cursor-pointer py-2 underline underline-offset-4">
                More: medication, illness, injury
              </summary>
              <div class="grid gap-2 pt-1">
                <FlagTick
                  v-for="flag in MORE_FLAGS"
                  :key="flag"
                  :flag="flag"
                  :on="state.value.includes(flag)"
                  @toggle="field.handleChange(toggled(state.value, flag))"
                />
              </div>
            </details>
          </fieldset>
        </form.Field>
      </div>
      <details class="lg:col-span-2" :open="typed.preparing" data-preparation>
        <summary class="min-h-10 cursor-pointer py-2 underline underline-offset-4">
          Preparation for a fixed day: a race by weight, a show
        </summary>
        <div class="grid gap-3 border-l-4 border-rule pl-4">
          <form.Field v-slot="{ field, state }" name="preparing">
            <TickField
              name="preparing"
              :model-value="state.value"
              @update:model-value="(field.handleChange($event), dateConsent($event, 'preparationBegunOn'))"
            >
              A doctor has cleared a preparation. It lasts {{ LIMITS.preparation.value.weeks }} weeks at most and ends
              by itself after the day.
            </TickField>
          </form.Field>
          <div v-if="typed.preparing" class="grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
            <form.Field v-slot="slot" name="preparationDay">
              <FormLine v-bind="slot" label="The day" :problems="problems" type="date" :min="today" />
            </form.Field>
            <form.Field v-slot="slot" name="clearedBy">
              <FormLine v-bind="slot" label="Cleared by (doctor)" :problems="problems" autocomplete="off" />
            </form.Field>
            <form.Field v-slot="slot" name="clearedOn">
              <FormLine v-bind="slot" label="Cleared on" :problems="problems" type="date" :max="today" />
            </form.Field>
            <form.Field v-slot="slot" name="clearedUntil">
              <FormLine v-bind="slot" label="Holds until" :problems="problems" type="date" :min="today" />
            </form.Field>
          </div>
        </div>
      </details>
      <form.Field v-slot="{ field, state }" name="notes">
        <FormField
          v-slot="{ attrs }"
          class="lg:col-span-2"
          label="Notes"
          name="notes"
          hint="Landmarks such as a mole, what to mind, what was agreed."
          :problem="told(state.meta.errors, 'notes')"
        >
          <textarea
            v-bind="attrs"
            class="field min-h-16"
            :value="state.value"
            @input="field.handleChange(textOf($event))"
          />
        </FormField>
      </form.Field>
    </div>
    <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
    <div class="flex gap-3">
      <button class="press press-first min-h-12">{{ action }}</button>
      <slot />
    </div>
  </form>
</template>
