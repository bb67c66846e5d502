<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { isAsked } from '~/confirming'
import { isLocked } from '~/locking'

/**
 * A sheet of paper laid over the page. Escape and a press beside it close it. While somebody is asked who they are, that
 * sheet is the only one; while the device is locked there is none.
 */
const props = defineProps<{
  title: string
  /** Wide enough for a picture and what is said about it. */
  wide?: boolean
  /** The sheet that asks who somebody is. */
  first?: boolean
}>()
const open = computed(() => !isLocked() && (props.first || !isAsked()))
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <Dialog :open="open" class="relative z-30" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/40" aria-hidden="true" />
    <div class="fixed inset-0 grid place-items-center overflow-y-auto p-4">
      <DialogPanel
        class="w-full rounded border border-ink bg-sheet"
        :class="wide ? 'max-w-3xl p-5' : 'max-w-md p-6'"
        v-bind="$attrs"
      >
        <DialogTitle class="mb-3 text-xl font-bold">{{ title }}</DialogTitle>
        <slot />
      </DialogPanel>
    </div>
  </Dialog>
</template>
