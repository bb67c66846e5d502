<script setup lang="ts">
import TriangleAlert from '@lucide/vue/dist/esm/icons/triangle-alert.mjs'
import type { Slip } from './slips'

/**
 * The slips of one day. Plain elements, drawn anew only where they changed: a week may hold three hundred. Presses and keys
 * are heard by the ruler they lie on.
 */
defineProps<{ slips: readonly Slip[]; picked: string | null; held: string | null }>()
</script>

<template>
  <button
    v-for="slip in slips"
    :key="slip.id"
    v-memo="[slip, slip.id === picked, slip.id === held]"
    type="button"
    class="slip"
    :class="{
      'slip-picked': slip.id === picked,
      'slip-done': slip.kind === 'done',
      'slip-gone': slip.kind === 'gone',
      'slip-clash': slip.clashes,
      'slip-short': !slip.wide,
      'slip-narrow': slip.narrow,
      'opacity-35': slip.id === held,
    }"
    :style="slip.style"
    :aria-pressed="slip.id === picked"
    :aria-label="slip.said"
    :data-visit="slip.id"
  >
    <template v-if="slip.wide">
      <!-- Spaces part the words for whoever hears them; a flexible row shows none. -->
      <span v-if="slip.beside" class="figure shrink-0 text-[13px]">{{ slip.beside.clock }}{{ ' ' }}</span>
      <span class="truncate font-semibold" :class="slip.beside ? 'shrink-0' : 'min-w-0'">{{ slip.name }}{{ ' ' }}</span>
      <TriangleAlert v-if="slip.minded" class="size-3.5 shrink-0 text-alert" aria-hidden="true" />
      <span v-if="slip.beside" class="ml-auto min-w-0 shrink-[99] truncate pl-2 text-[13px] text-faded">{{
        slip.beside.words
      }}</span>
    </template>
    <template v-else>{{ slip.name }}</template>
  </button>
</template>

<style scoped>
.slip {
  position: absolute;
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
  contain: layout paint style;
  line-height: 1.1;
  text-align: left;
  white-space: nowrap;
}
/* A name and nothing else: text alone, which a button centres by itself. */
.slip-short {
  display: block;
  font-size: 13px;
  text-overflow: ellipsis;
}
.slip-narrow {
  padding: 0 1px;
  border-left-width: 3px;
  font-size: 12px;
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
