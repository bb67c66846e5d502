<script setup lang="ts">
import { FLAGS } from '#core/cautions'
import type { Suspension } from '#core/safety'
import type { SafetyNote } from '#shared/safety-notes'

/** What to know about a client before anything else: cautions, and what was agreed and does not count until decided. */
const props = defineProps<{
  clientId: string
  notes: readonly SafetyNote[]
  suspensions: readonly Suspension[]
  /** The client may look: nothing about size or weight stands here. */
  bare: boolean
}>()

/** Notes about the measured body, and not about the person. */
const OF_BODY = new Set(['large-folds', 'underweight', 'essential-fat', 'unplanned-loss'])
/** Reasons that say nothing about size or weight: what is on record about the person. */
const ofPerson = (code: string) => code in FLAGS || code === 'under-18'
const emit = defineEmits<{ goOn: [suspension: Suspension] }>()

/** What suspends something is said there, and not twice. */
const others = computed(() =>
  props.notes.filter(
    ({ code }) =>
      !(props.bare && OF_BODY.has(code)) && !props.suspensions.some((one) => one.mayGoOn && one.code === code),
  ),
)
const all = ref(false)
/** Notes shown before the rest is asked for. */
const SHOWN = 2
const shown = computed(() => (all.value ? others.value : others.value.slice(0, SHOWN)))
const nameOf = ({ about, name }: Suspension) =>
  about === 'plan' ? 'The plan' : about === 'challenge' ? `The entry in “${name}”` : 'The daily weight from home'
const wayOf = ({ about }: Suspension) =>
  about === 'plan' ? 'plan' : about === 'challenge' ? 'challenges' : 'from-home'
</script>

<template>
  <div class="grid gap-1 border-b border-rule bg-sheet px-4 py-2 sm:px-6" data-safety>
    <p
      v-for="one in suspensions"
      :key="one.subjectId"
      class="flex flex-wrap items-center gap-x-4 gap-y-1"
      :data-suspended="one.about"
    >
      <span class="min-w-0 flex-1 max-sm:basis-full">
        <strong class="text-alert">{{ nameOf(one) }} is suspended.</strong>
        <template v-if="!bare || ofPerson(one.code)"> {{ one.sentence }}</template>
      </span>
      <button v-if="one.mayGoOn" type="button" class="press press-quiet min-h-10" @click="emit('goOn', one)">
        Let it go on
      </button>
      <NuxtLink
        :to="one.about === 'challenge' ? '/challenges' : `/clients/${clientId}/${wayOf(one)}`"
        class="press min-h-10"
        >Decide</NuxtLink
      >
    </p>
    <p v-if="others.length > 0" class="text-[15px] leading-6">
      <template v-for="(one, i) in shown" :key="one.code"
        ><span v-if="i > 0" aria-hidden="true"> · </span><span :data-note="one.code">{{ one.sentence }}</span></template
      >
      <button
        v-if="others.length > SHOWN"
        type="button"
        class="ml-2 underline underline-offset-4"
        :aria-expanded="all"
        @click="all = !all"
      >
        {{ all ? 'fewer' : `${others.length - SHOWN} more` }}
      </button>
    </p>
  </div>
</template>
