<script setup lang="ts">
import Delete from '@lucide/vue/dist/esm/icons/delete.mjs'

defineProps<{
  canStrike: boolean
  /** Figure of a picked reading; without one the last is struck. */
  picked: string | null
  /** Quarters of an inch beside the figures. */
  fractions: boolean
  /** Practice: nothing is written down. */
  noNotes?: boolean
}>()
const emit = defineEmits<{ type: [sign: string]; erase: []; keep: []; strike: []; note: [] }>()

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0'] as const
</script>

<template>
  <!-- Pressing a pad key must not take the focus: a keyboard's Enter goes on meaning "keep". -->
  <div class="flex flex-col gap-2" @pointerdown.prevent>
    <div v-if="fractions" class="grid grid-cols-3 gap-2">
      <button
        v-for="fraction in ['¼', '½', '¾']"
        :key="fraction"
        type="button"
        class="key figure text-2xl"
        @click="emit('type', fraction)"
      >
        {{ fraction }}
      </button>
    </div>
    <div class="pad grid grid-cols-4">
      <button
        v-for="key in KEYS"
        :key="key"
        type="button"
        class="key figure text-3xl font-semibold"
        :style="{ gridArea: `k${key === '.' ? 'p' : key}` }"
        :aria-label="key === '.' ? 'point' : key"
        @click="emit('type', key)"
      >
        {{ key }}
      </button>
      <button type="button" class="key" style="grid-area: erase" aria-label="Erase last digit" @click="emit('erase')">
        <Delete class="size-7" aria-hidden="true" />
      </button>
      <button
        type="button"
        class="key font-semibold disabled:opacity-40"
        style="grid-area: strike"
        :disabled="!canStrike"
        @click="emit('strike')"
      >
        <span
          >Strike{{ ' ' }}<br class="max-sm:hidden" />
          <span :class="picked ? 'figure text-alert' : ''">{{ picked ?? 'last' }}</span></span
        >
      </button>
      <button v-if="!noNotes" type="button" class="key font-semibold" style="grid-area: note" @click="emit('note')">
        Note
      </button>
      <button type="button" class="key key-keep text-xl font-bold" style="grid-area: keep" @click="emit('keep')">
        Keep
      </button>
    </div>
  </div>
</template>

<style scoped>
/* Keys keep their place and height whatever is said above them. */
.pad {
  grid-auto-rows: var(--key, 72px);
  gap: 8px;
  grid-template-areas:
    'k1 k2 k3 strike'
    'k4 k5 k6 note'
    'k7 k8 k9 keep'
    'kp k0 erase keep';
}
.key {
  display: grid;
  place-items: center;
  min-height: 44px;
  border: 1px solid var(--rule);
  border-radius: 4px;
  background: var(--sheet);
  line-height: 1.15;
  touch-action: manipulation;
  user-select: none;
}
.key:active:not(:disabled) {
  background: var(--wash);
}
.key-keep {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--sheet);
}
.key-keep:active {
  background: var(--signal);
}
@media (max-height: 499px) {
  .pad {
    gap: 6px;
  }
  .key {
    font-size: 15px;
  }
  .key.figure {
    font-size: 22px;
  }
}
</style>
