<script setup lang="ts">
import { FITS, HAND_IN_CONDITIONS } from '#core/home'
import type { HandIn } from '~/composables/useHandIn'

/** How the week went: nothing has to be said. */
const props = defineProps<{ hand: HandIn }>()
const emit = defineEmits<{ done: []; back: [] }>()
const draft = computed(() => props.hand.draft.value)
const fits = FITS.map((id) => ({ id, name: id === 'same' ? 'the same' : id }))

function say(condition: string, answer: string | null) {
  if (!draft.value) return
  const { [condition]: _, ...rest } = draft.value.conditions
  draft.value.conditions = answer ? { ...rest, [condition]: answer } : rest
  void props.hand.keepDraft()
}
</script>

<template>
  <form v-if="draft" class="flex flex-1 flex-col gap-4" novalidate data-words @submit.prevent="emit('done')">
    <div>
      <h1 class="text-3xl font-bold">Anything to tell</h1>
      <p class="text-lg text-faded">Only what you want to say.</p>
    </div>
    <div v-for="one in HAND_IN_CONDITIONS" :key="one.id" class="grid gap-1">
      <span class="text-[17px] font-semibold">{{ one.label }}</span>
      <PressGroup
        large
        :label="one.label"
        :options="one.options"
        :model-value="draft.conditions[one.id] ?? null"
        @update:model-value="say(one.id, $event)"
      />
    </div>
    <div class="grid gap-1">
      <span class="text-[17px] font-semibold">Clothes fit</span>
      <PressGroup
        large
        label="Clothes fit"
        :options="fits"
        :model-value="draft.fit"
        @update:model-value="((draft.fit = $event), hand.keepDraft())"
      />
    </div>
    <label class="grid gap-1 text-[17px] font-semibold"
      >A line to your coach
      <textarea
        v-model="draft.words"
        name="words"
        rows="3"
        maxlength="500"
        class="field text-lg font-normal"
        @input="hand.keepDraft()"
      />
    </label>
    <div class="mt-auto grid gap-3">
      <button class="press press-first min-h-16 text-xl">Hand in the week</button>
      <button type="button" class="min-h-12 text-lg underline underline-offset-4" @click="emit('back')">Back</button>
    </div>
  </form>
</template>
