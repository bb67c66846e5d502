<script setup lang="ts">
import { changeRow, figureShown, type FigureId } from '#core/following'
import type { Units } from '#core/units'
import type { ClientFigure } from '#shared/schemas/client'

/** A figure of the list: what is there now, the difference since the start, and its sign. */
const props = defineProps<{ figure: FigureId; of: ClientFigure | null; units: Units }>()
const row = computed(() => props.of?.change && changeRow(props.of.change, props.units))
</script>

<template>
  <span v-if="of" class="inline-flex items-center gap-3">
    <span class="figure w-14 text-right font-semibold" data-now>{{
      row?.now ?? figureShown(figure, of.value, units)
    }}</span>
    <span
      v-if="row && of.change"
      class="inline-flex items-center gap-2"
      :title="`${row.then} on ${sayDay(of.change.since)}; ${row.reason}`"
    >
      <span class="figure w-12 text-right text-sm" data-change>{{ row.difference }}</span>
      <VerdictMark class="text-[15px]" :change="of.change" short words-go />
    </span>
  </span>
</template>
