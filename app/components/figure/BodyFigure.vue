<script setup lang="ts">
import { foldAngle, MARK_WORDS, type SiteMark } from './marks'
import { BODY_OUTLINE, FIGURE_WIDTH, INNER_LINES, NAVEL } from '#shared/body-outline'

const props = withDefaults(
  defineProps<{
    view: 'front' | 'back'
    marks: SiteMark[]
    /** Measured on the left: the marks change sides. */
    mirrored?: boolean
    /** Lowest part of the body to show, in figure units. */
    bottom?: number
    glyphSize?: number
    /** The marks can be pressed. */
    pickable?: boolean
  }>(),
  { bottom: 456, glyphSize: 4.2 },
)

const emit = defineEmits<{ pick: [site: string] }>()

const shown = computed(() =>
  props.marks
    .filter(({ site }) => site.figure.view === props.view)
    .sort((a, b) => Number(a.state === 'now') - Number(b.state === 'now')),
)
const description = computed(
  () =>
    `${props.view === 'front' ? 'Front' : 'Back'} of a body. ` +
    shown.value.map(({ site, state }) => `${site.name}: ${MARK_WORDS[state]}`).join(', '),
)

function xOf(x: number): number {
  return props.mirrored ? FIGURE_WIDTH - x : x
}
</script>

<template>
  <svg :viewBox="`24 2 152 ${bottom - 2}`" role="img" :aria-label="description">
    <path :d="BODY_OUTLINE" class="fill-skin stroke-contour" stroke-width="1.6" stroke-linejoin="round" />
    <g class="stroke-contour" fill="none" stroke-width="1" stroke-linecap="round" opacity="0.55">
      <path v-for="line in INNER_LINES[view]" :key="line" :d="line" />
    </g>
    <ellipse v-if="view === 'front'" :cx="NAVEL.x" :cy="NAVEL.y" rx="1.4" ry="2" class="fill-contour" />
    <g
      v-for="mark in shown"
      :key="mark.site.id"
      :transform="`translate(${xOf(mark.site.figure.x)} ${mark.site.figure.y})`"
      :class="pickable ? 'cursor-pointer' : ''"
      @click="pickable && emit('pick', mark.site.id)"
    >
      <line
        :y1="-glyphSize * 3"
        :y2="glyphSize * 3"
        stroke-width="2"
        stroke-linecap="round"
        :transform="`rotate(${foldAngle(mark.site, mirrored ?? false)})`"
        :class="{
          'stroke-signal': mark.state === 'now' || mark.state === 'next',
          'stroke-lean': mark.state === 'agreed',
          'stroke-fat': mark.state === 'disputed',
          'stroke-ink': mark.state === 'once' || mark.state === 'marked',
          'stroke-contour': mark.state === 'to-come',
        }"
      />
      <SiteGlyph :state="mark.state" :size="glyphSize" />
    </g>
  </svg>
</template>
