<script setup lang="ts">
import { BODY_OUTLINE, INNER_LINES, NAVEL } from '#shared/body-outline'
import { GIRTHS, type GirthSiteId } from '#core/sites'

/** Where the tape lies: the body from the front, and sideways in a mirror with the tape level all round. */
const props = defineProps<{ site: GirthSiteId }>()
const y = computed(() => GIRTHS[props.site].figure.y)
/** Half width of the body there, in figure units. */
const WIDTH: Partial<Record<GirthSiteId, number>> = { shoulders: 46, abdomen: 27, hip: 33 }
const half = computed(() => WIDTH[props.site] ?? 30)
</script>

<template>
  <svg viewBox="20 40 330 230" role="img" :aria-label="`${GIRTHS[site].name}: the tape lies level all round`">
    <clipPath id="tape-part"><rect x="20" y="40" width="330" height="230" /></clipPath>
    <g clip-path="url(#tape-part)">
      <path :d="BODY_OUTLINE" class="fill-skin stroke-contour" stroke-width="1.6" stroke-linejoin="round" />
      <g class="stroke-contour" fill="none" stroke-width="1" opacity="0.5">
        <path v-for="line in INNER_LINES.front" :key="line" :d="line" />
      </g>
      <ellipse :cx="NAVEL.x" :cy="NAVEL.y" rx="1.6" ry="2.2" class="fill-contour" />
    </g>
    <ellipse :cx="100" :cy="y" :rx="half" ry="6" fill="none" class="stroke-girth" stroke-width="4" />
    <g class="stroke-girth" stroke-width="1.2">
      <path v-for="i in 9" :key="i" :d="`M${100 - half + (i * half) / 5} ${y + 3.6}v4`" />
    </g>
    <g>
      <rect x="222" y="52" width="112" height="206" rx="4" class="fill-wash stroke-contour" stroke-width="1.4" />
      <g transform="translate(278 0) scale(0.5 1) translate(-100 0)" opacity="0.9">
        <path :d="BODY_OUTLINE" class="fill-skin stroke-contour" stroke-width="2" clip-path="url(#mirror)" />
      </g>
      <clipPath id="mirror"><rect x="-20" y="54" width="240" height="202" /></clipPath>
      <path :d="`M${278 - half * 0.62} ${y}h${half * 1.24}`" class="stroke-girth" stroke-width="4" />
      <path
        :d="`M230 ${y}H${278 - half * 0.62 - 4}M${278 + half * 0.62 + 4} ${y}H326`"
        class="stroke-ink"
        stroke-dasharray="3 4"
      />
    </g>
  </svg>
</template>
