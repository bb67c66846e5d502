<script setup lang="ts">
import type { Site } from '#core/sites'
import type { SheetRow } from './sheet'

const props = defineProps<{
  rows: SheetRow[]
  current: Site | null
  leftSide: boolean
  /** Sites marked on the skin so far, while they are being marked; null: the readings have begun. */
  marked: ReadonlySet<string> | null
}>()

/** Room kept under the lowest mark, in figure units. */
const BELOW = 56

const view = ref<'front' | 'back'>('front')
watch(
  () => props.current,
  (site) => {
    if (site) view.value = site.figure.view
  },
  { immediate: true },
)
const other = computed(() => (view.value === 'front' ? 'back' : 'front'))
const marks = computed(() =>
  props.rows.map(({ site, mark }) => {
    if (site.id === props.current?.id) return { site, state: 'now' as const }
    if (props.marked) return { site, state: props.marked.has(site.id) ? ('marked' as const) : ('to-come' as const) }
    return { site, state: mark === 'now' ? ('to-come' as const) : mark }
  }),
)
const bottom = computed(() => Math.max(...props.rows.map(({ site }) => site.figure.y)) + BELOW)
</script>

<template>
  <aside class="flex flex-col px-4 py-3" aria-label="Sites on the body">
    <h2 class="font-semibold">{{ view === 'front' ? 'Front' : 'Back' }}</h2>
    <div class="relative min-h-0 flex-1">
      <BodyFigure :view="view" :marks="marks" :mirrored="leftSide" :bottom="bottom" class="h-full w-full" />
      <button class="absolute -top-5 right-0 grid h-[25%] justify-items-center" @click="view = other">
        <BodyFigure
          :view="other"
          :marks="marks"
          :mirrored="leftSide"
          :bottom="bottom"
          :glyph-size="6.5"
          class="h-full min-h-0"
        />
        <span class="text-sm text-faded underline underline-offset-4">turn to {{ other }}</span>
      </button>
    </div>
    <FigureLegend :marking="marked !== null" />
  </aside>
</template>
