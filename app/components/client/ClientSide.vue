<script setup lang="ts">
import X from '@lucide/vue/dist/esm/icons/x.mjs'
import { changeRow, type Change, type Span } from '#core/following'
import { withoutBody } from '#core/safety'
import type { Units } from '#core/units'

/** The side for the client: what went well, one figure the coach chose, the next date. Nothing else. */
const props = defineProps<{
  name: string
  span: Span | null
  /** Words kept with the check-in. */
  kept: string | null
  next: string
  units: Units
  /** No number about the body may be shown. */
  neutral: boolean
}>()
const emit = defineEmits<{ close: []; chosen: [figure: Figure | 'none'] }>()

const NAMES = { fat: 'Fat', sum: 'Sum of folds', lean: 'Lean', weight: 'Weight', percent: 'Fat, percent' } as const
type Figure = keyof typeof NAMES
const chosen = ref<Figure | 'none'>('none')
const well = ref(withoutBody(props.kept ?? ''))
const isWriting = ref(true)
const options = computed(() => {
  const { span } = props
  const all = (Object.keys(NAMES) as Figure[]).flatMap((id) => (span?.[id] ? [{ id, name: NAMES[id] }] : []))
  return [{ id: 'none' as const, name: 'No figure' }, ...(props.neutral ? [] : all)]
})
const change = computed<Change | null>(() => (chosen.value === 'none' ? null : (props.span?.[chosen.value] ?? null)))
const row = computed(() => change.value && changeRow(change.value, props.units))
watch(chosen, (figure) => emit('chosen', figure))
onKeyStroke('Escape', () => emit('close'))
</script>

<template>
  <div
    class="fixed inset-0 z-30 flex flex-col overflow-y-auto bg-sheet px-6 py-5 sm:px-12"
    role="dialog"
    aria-modal="true"
    :aria-label="`For ${name}`"
    data-client-side
  >
    <div class="flex items-start justify-between gap-4">
      <h1 class="text-4xl font-bold">{{ name }}</h1>
      <button type="button" class="press press-quiet min-h-12" @click="emit('close')">
        <X class="size-5" aria-hidden="true" />Back to the coach
      </button>
    </div>
    <form v-if="isWriting" class="mt-6 grid max-w-prose gap-5" @submit.prevent="isWriting = false">
      <label class="grid gap-1 text-lg font-semibold"
        >What went well
        <textarea v-model="well" name="well" class="field min-h-28 text-lg font-normal" maxlength="500" />
      </label>
      <div class="grid gap-1">
        <span class="text-lg font-semibold">One figure</span>
        <PressGroup v-model="chosen" label="One figure to show" :options="options" />
      </div>
      <button class="press press-first min-h-14 justify-self-start text-lg">Turn the screen</button>
    </form>
    <div v-else class="grid flex-1 content-center gap-10">
      <p v-if="well.trim()" class="max-w-[30ch] text-4xl leading-tight" data-well>{{ well }}</p>
      <div v-if="row" data-chosen>
        <p class="text-xl text-faded">{{ chosen === 'none' ? '' : NAMES[chosen] }}</p>
        <p class="flex flex-wrap items-baseline gap-x-4">
          <span class="figure text-4xl text-faded">{{ row.then }} →</span>
          <span class="figure text-8xl leading-none font-bold">{{ row.now }}</span>
          <span class="text-2xl text-faded">{{ row.unit }}</span>
          <span class="figure text-5xl font-bold">{{ row.difference }}</span>
        </p>
        <p class="mt-2 text-3xl">{{ row.sign }}</p>
      </div>
      <p class="text-3xl">Next time about <strong>{{ sayDay(next) }}</strong></p>
    </div>
  </div>
</template>
