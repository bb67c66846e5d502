<script setup lang="ts">
import { useForm, useStore } from '@tanstack/vue-form'
import { v7 as uuid } from 'uuid'
import { daysBetween, isDay, type Day } from '#core/calendar'
import { aimAt, canLoseAt, firstWeekKg, lossRefusals, planLine, planNotes, planRefusals, startOf } from '#core/plan'
import { TARGET_KINDS, type PlanLine, type TargetKind } from '#core/plan'
import { formatMass, formatNumber, massToKg, type Units } from '#core/units'
import type { FollowedEnd } from '#shared/following'
import { planContext, targetOf } from '#shared/plan'
import type { ClientHistory } from '#shared/schemas/following'
import type { PlanInput } from '#shared/schemas/plan'
import { TARGET_NAMES, targetShown } from './target-shown'
import { paces, readPlan, type TypedPlan } from './typed-plan'

/** Sets a plan: what is typed is put on its start and checked while it is typed. */
const props = defineProps<{
  history: ClientHistory
  ends: readonly FollowedEnd[]
  units: Units
  neutral: boolean
  save: (input: PlanInput) => Promise<void>
  /** Where the end of the line was dragged to, in the target's own unit; null: it was not. */
  dragged: { day: Day; value: number } | null
}>()
const emit = defineEmits<{ draft: [line: PlanLine | null, start: FollowedEnd | null] }>()
const SHOWN_STARTS = 12

const id = uuid()
const problems = useProblems(['kind', 'value', 'perWeek', 'byDay'])
const newestFirst = computed(() => [...props.ends].reverse().slice(0, SHOWN_STARTS))

const form = useForm({
  defaultValues: {
    checkinId: props.ends.at(-1)?.record.id ?? '',
    kind: props.neutral ? 'sum' : 'fat',
    value: '',
    perWeek: '',
    byDay: '',
  } as TypedPlan,
  validators: {
    onSubmit: ({ value }) => {
      const { plan, problems: wrong } = readPlan(value, props.units, id)
      if (plan) return undefined
      const missing = 'Please give a number.'
      const told = (field: 'value' | 'perWeek') => (value[field].trim() === '' ? missing : wrong[field])
      return { fields: { value: told('value'), perWeek: told('perWeek'), byDay: wrong.byDay } }
    },
  },
  async onSubmit({ value }) {
    const { plan } = readPlan(value, props.units, id)
    if (!plan || refusals.value.size > 0) return
    await problems.send(() => props.save({ id, ...plan }))
  },
})
const typed = useStore(form.store, ({ values }) => values)
const busy = useStore(form.store, ({ isSubmitting }) => isSubmitting)

const start = computed(() => props.ends.find(({ record }) => record.id === typed.value.checkinId) ?? null)
const context = computed(() => start.value && planContext(start.value, props.history, props.units, todayHere()))
const kinds = computed(() =>
  TARGET_KINDS.filter((kind) => !props.neutral || kind === 'sum').map((kind) => ({
    id: kind,
    name: TARGET_NAMES[kind],
  })),
)
const shown = computed(() => targetShown(typed.value.kind, props.units))
const from = computed(() => context.value && startOf(typed.value.kind, context.value.start))
const read = computed(() => readPlan(typed.value, props.units, id))
const target = computed(() => read.value.plan && targetOf(read.value.plan))
/** Usual paces of a loss that can be kept for this person: the others are not offered. */
const offered = computed(() =>
  paces(typed.value.kind, props.units).filter((pace) => {
    if (!context.value) return true
    const perWeek =
      typed.value.kind === 'fat' || typed.value.kind === 'weight'
        ? massToKg(Number(pace), props.units.mass)
        : Number(pace)
    return canLoseAt({ kind: typed.value.kind, perWeek }, context.value)
  }),
)
const refusals = computed(() => {
  if (!context.value || !target.value) return new Map<string, string>()
  return new Map(planRefusals(target.value, context.value).map(({ field, sentence }) => [field as string, sentence]))
})
const notes = computed(() =>
  context.value && target.value && refusals.value.size === 0 ? planNotes(target.value, context.value) : [],
)
/** Said before anything is typed, for people whom no plan to lose is kept for. */
const unfit = computed(() => (context.value ? lossRefusals(context.value) : []))
const draft = computed(() => (context.value && target.value ? planLine(target.value, context.value.start) : null))
// A refused line is not drawn: nobody should have it before their eyes.
watch([draft, refusals], () => emit('draft', refusals.value.size === 0 ? draft.value : null, start.value))
onUnmounted(() => emit('draft', null, null))

const aim = computed(() =>
  context.value && target.value ? aimAt(target.value.kind, target.value.value, context.value.start) : null,
)
const week = computed(() => (context.value && target.value ? firstWeekKg(target.value, context.value) : null))
function told(errors: readonly unknown[], field: 'kind' | 'value' | 'perWeek' | 'byDay'): string | undefined {
  const live = field === 'kind' ? undefined : read.value.problems[field]
  return live ?? refusals.value.get(field) ?? problems.byField.value.get(field) ?? firstError(errors)
}

function chooseKind(kind: TargetKind | null) {
  if (!kind || kind === typed.value.kind) return
  // Numbers of one unit mean nothing in another.
  form.setFieldValue('kind', kind)
  form.setFieldValue('value', '')
  form.setFieldValue('perWeek', '')
}

/** The end of the line dragged on the chart sets target and pace. */
watch(
  () => props.dragged,
  (end) => {
    const line = draft.value
    if (!end || !line) return
    const weeks = Math.max(1 / 7, daysBetween(line.startDay, end.day) / 7)
    const inUnit = (own: number, decimals: number) => shown.value.value(own, decimals)
    form.setFieldValue('value', inUnit(end.value, 1))
    form.setFieldValue('perWeek', inUnit(Math.abs(end.value - line.from) / weeks, 2))
  },
)

watch(
  () => props.neutral,
  (neutral) => neutral && chooseKind('sum'),
)
</script>

<template>
  <form class="grid gap-4" novalidate data-plan-form @submit.prevent="form.handleSubmit()">
    <div v-if="unfit.length > 0" class="border-l-4 border-fat pl-3 text-[15px]" data-unfit>
      <p class="font-semibold">No plan to lose is kept.</p>
      <p v-for="sentence in unfit" :key="sentence">{{ sentence }}</p>
    </div>
    <div class="grid gap-4 sm:grid-cols-2">
      <form.Field v-slot="{ field, state }" name="checkinId">
        <ListField
          label="Starts at the check-in of"
          name="checkinId"
          :options="newestFirst.map(({ record }) => ({ id: record.id, name: sayDay(record.day) }))"
          :model-value="state.value"
          @update:model-value="field.handleChange($event)"
        />
      </form.Field>
      <form.Field v-slot="{ field, state }" name="byDay">
        <TextField
          label="Wanted by, if at all"
          name="byDay"
          :problem="told(state.meta.errors, 'byDay')"
          type="date"
          :model-value="state.value"
          @update:model-value="field.handleChange($event)"
        />
      </form.Field>
    </div>
    <div class="grid gap-1">
      <PressGroup
        label="The target is set in"
        :options="kinds"
        :model-value="typed.kind"
        @update:model-value="chooseKind"
      />
      <p v-if="told([], 'kind')" role="alert" class="text-sm font-semibold text-alert">{{ told([], 'kind') }}</p>
      <p v-else-if="from" class="text-[15px] text-faded">
        There: <span class="figure font-semibold text-ink">{{ shown.value(from.value) }}</span> {{ shown.unit }}
      </p>
      <p v-else class="text-[15px] text-faded">That check-in does not hold it.</p>
    </div>
    <div class="grid gap-4 sm:grid-cols-2">
      <form.Field v-slot="{ field, state }" name="value">
        <TextField
          :label="`Target, ${shown.unit}`"
          name="value"
          :problem="told(state.meta.errors, 'value')"
          class="figure"
          inputmode="decimal"
          autocomplete="off"
          :model-value="state.value"
          @update:model-value="field.handleChange($event)"
        />
      </form.Field>
      <form.Field v-slot="{ field, state }" name="perWeek">
        <div class="grid content-start gap-2">
          <TextField
            :label="`Pace, ${shown.changeUnit} a week`"
            name="perWeek"
            :problem="told(state.meta.errors, 'perWeek')"
            class="figure"
            inputmode="decimal"
            autocomplete="off"
            :model-value="state.value"
            @update:model-value="field.handleChange($event)"
          />
          <PressGroup
            label="Usual paces"
            :options="offered.map((pace) => ({ id: pace, name: pace }))"
            :model-value="state.value"
            @update:model-value="field.handleChange($event ?? '')"
          />
        </div>
      </form.Field>
    </div>
    <p v-if="refusals.get('plan')" role="alert" class="font-semibold text-alert">{{ refusals.get('plan') }}</p>
    <div v-if="draft && refusals.size === 0" class="grid gap-1 border-l-4 border-lean pl-3" data-draft>
      <p>
        <span class="figure font-bold">{{ formatNumber(draft.weeks, 0) }}</span> weeks: about
        <strong>{{ sayDay(draft.endsOn) }}</strong
        ><template v-if="week !== null && !neutral"
          >, <span class="figure font-bold">{{ formatMass(Math.abs(week), units, 2) }}</span> {{ units.mass }} of body
          weight in the first week</template
        >.
      </p>
      <p v-if="aim && !neutral" class="text-[15px]">
        At kept lean mass: <span class="figure font-semibold">{{ formatMass(aim.weightKg, units) }}</span>
        {{ units.mass }}, of it <span class="figure font-semibold">{{ formatMass(aim.fatKg, units) }}</span> fat,
        <span class="figure font-semibold">{{ formatNumber(aim.percent) }} %</span>.
      </p>
      <PlanBack v-if="draft && isDay(typed.byDay)" :line="draft" :by="typed.byDay" :units="units" />
      <p v-for="note in notes" :key="note" class="text-[15px] font-semibold">{{ note }}</p>
      <slot name="telling" />
    </div>
    <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
    <div class="flex gap-3">
      <button class="press press-first" :disabled="busy">Keep this plan</button>
      <slot />
    </div>
  </form>
</template>
