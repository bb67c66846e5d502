<script setup lang="ts">
import { TriangleAlert } from '@lucide/vue'
import type { BookingLine, VisitBrief } from '#shared/schemas/booking'
import { clockOf, initialsOf } from './ruler'

/** A visit as a slip of paper against the ruler of its day. */
const props = defineProps<{
  visit: BookingLine
  brief: VisitBrief | null
  wide: boolean
  lanes: number
  picked: boolean
  clashes: boolean
  /** Minute of the day it begins. */
  minute: number
  /** Who measures, in words. */
  assessor: string
}>()

const minded = computed(() => (props.brief ? props.brief.flags.length > 0 || props.brief.minor : false))
const first = computed(() => props.visit.clientName.split(' ')[0] ?? '')
const gone = computed(() => props.visit.state === 'no-show')
const state = computed(() =>
  gone.value
    ? 'did not come'
    : props.visit.checkin?.finished
      ? 'measured'
      : props.visit.checkin
        ? 'being measured'
        : null,
)
const said = computed(() => {
  const end = clockOf(props.minute + props.visit.minutes)
  const where = props.visit.place ? `, ${props.visit.place}` : ''
  return [
    `${clockOf(props.minute)} to ${end}, ${props.visit.clientName}${where}, ${props.assessor}`,
    state.value,
    props.visit.movedFrom ? 'moved' : null,
    minded.value ? 'with cautions' : null,
    props.clashes ? 'clashes with another' : null,
  ]
    .filter(Boolean)
    .join(', ')
})
</script>

<template>
  <button
    type="button"
    class="slip"
    :class="{
      'slip-picked': picked,
      'slip-done': visit.checkin?.finished,
      'slip-gone': gone,
      'slip-clash': clashes,
      'slip-narrow': !wide && lanes > 1,
    }"
    :aria-pressed="picked"
    :data-visit="visit.id"
  >
    <span class="sr-only">{{ said }}. Arrows move it.</span>
    <span v-if="wide && lanes === 1" class="figure shrink-0 text-[13px]" aria-hidden="true">{{ clockOf(minute) }}</span>
    <span
      class="truncate"
      :class="[wide ? 'font-semibold' : 'text-[13px]', wide && lanes === 1 ? 'shrink-0' : 'min-w-0']"
      aria-hidden="true"
      >{{ wide ? visit.clientName : lanes > 2 ? initialsOf(visit.clientName) : first }}</span
    >
    <TriangleAlert v-if="minded && wide" class="size-3.5 shrink-0 text-alert" aria-hidden="true" />
    <span
      v-if="wide && lanes === 1"
      class="ml-auto min-w-0 shrink-[99] truncate pl-2 text-[13px] text-faded"
      aria-hidden="true"
      >{{ state ?? (visit.place || assessor) }}</span
    >
  </button>
</template>

<style scoped>
.slip {
  display: flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
  padding: 0 6px;
  overflow: hidden;
  border: 1px solid var(--contour);
  border-left: 4px solid var(--signal);
  border-radius: 3px;
  background: var(--sheet);
  line-height: 1.1;
  text-align: left;
  white-space: nowrap;
}
.slip-narrow {
  padding: 0 2px;
  border-left-width: 3px;
}
.slip-narrow > span {
  text-overflow: clip;
}
.slip:hover {
  background: var(--wash);
}
.slip-picked {
  border-color: var(--ink);
  background: var(--wash);
}
.slip-done {
  border-left-color: var(--lean);
}
.slip-gone {
  border-left-color: var(--contour);
  border-style: dashed;
  color: var(--faded);
  text-decoration: line-through;
}
.slip-clash {
  border-left-color: var(--alert);
}
@media (min-width: 640px) {
  .slip {
    touch-action: none;
    cursor: grab;
  }
}
</style>
