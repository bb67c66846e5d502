<script setup lang="ts">
import { formatNumber, formatTape, type Units } from '#core/units'
import type { Cell } from '~/composables/useMeasuring'
import { readingsLeftOut, valueOf, sayWhy } from '#core/readings'
import type { SheetRow } from './sheet'

const props = defineProps<{
  rows: SheetRow[]
  cell: Cell
  typed: string
  /** Date of last time, or null when there is none. */
  lastDate: string | null
  showLast: boolean
  base: number
  units: Units
  /** First readings stay hidden until the second is in. */
  blind: boolean
  /** Ids of readings with a note. */
  noted: ReadonlySet<string>
  /** Id of the reading picked to be struck. */
  picked: string | null
}>()
const emit = defineEmits<{ choose: [site: SheetRow['state']['site']]; pick: [readingId: string] }>()

const columns = computed(() => Math.max(3, props.base + 1, ...props.rows.map(({ state }) => state.live.length)))
const ORDINALS = ['1st', '2nd', '3rd', '4th', '5th', '6th']

const sheet = useTemplateRef<HTMLTableElement>('sheet')
// The row that is read stays in sight, however small the screen.
watch(
  () => props.cell,
  async () => {
    await nextTick()
    sheet.value?.querySelector('tr.current')?.scrollIntoView({ block: 'nearest' })
  },
  { immediate: true },
)

function isCurrent(row: SheetRow): boolean {
  return props.cell.kind === 'site' && props.cell.site === row.state.site
}

function readingAt(row: SheetRow, column: number) {
  return row.state.live[column - 1]
}

function valueAt(row: SheetRow, column: number): number {
  const reading = readingAt(row, column)
  return reading ? valueOf(reading) : 0
}

function figureOf(row: SheetRow, value: number, decimals = 1): string {
  return row.site.kind === 'fold' ? formatNumber(value, decimals) : formatTape(value, props.units)
}

/** A value with two decimals, the second one held back when it is 0: decimals stay under each other. */
function valueParts(row: SheetRow): [string, string] {
  const text = figureOf(row, row.state.value ?? 0, 2)
  return row.site.kind === 'fold' && text.endsWith('0') ? [text.slice(0, -1), '0'] : [text, '']
}

/** Beside the two that agree: it does not enter the value. */
function isLeftOut({ state }: SheetRow, column: number): boolean {
  return readingsLeftOut(state.live.map(valueOf), state.policy).includes(column - 1)
}

function isHidden(row: SheetRow): boolean {
  return props.blind && row.state.live.length < row.state.policy.base
}

/** The first girth starts the tape's part of the sheet. */
function startsTape(index: number): boolean {
  return props.rows[index]?.site.kind === 'girth' && props.rows[index - 1]?.site.kind !== 'girth'
}

function isTyping(row: SheetRow, column: number): boolean {
  return isCurrent(row) && column === row.state.live.length + 1
}
</script>

<template>
  <table ref="sheet" class="sheet w-full border-collapse" :class="{ long: rows.length > 9 }">
    <caption class="sr-only">
      Log sheet, folds in millimetres, girths in
      {{ units.length }}
    </caption>
    <thead>
      <tr class="text-sm text-faded">
        <th scope="col" class="text-left font-medium">Site</th>
        <th v-if="showLast" scope="col" class="last-head font-medium">{{ lastDate ?? 'Last' }}</th>
        <th
          v-for="column in columns"
          :key="column"
          scope="col"
          class="font-medium"
          :class="{ spare: column > base && !rows.some((row) => row.state.live.length >= base + 1) }"
        >
          {{ ORDINALS[column - 1] ?? column }}
        </th>
        <th scope="col" class="value-head font-medium">Value</th>
      </tr>
    </thead>
    <tbody>
      <template v-for="(row, index) in rows" :key="row.site.id">
        <tr v-if="startsTape(index)" class="tape">
          <th scope="colgroup" :colspan="columns + 3" class="text-left text-sm font-medium text-faded">
            Tape, {{ units.length }}
          </th>
        </tr>
        <tr
          :class="{ current: isCurrent(row) }"
          :data-site="row.site.id"
          :data-status="row.state.status"
          :aria-current="isCurrent(row) ? 'step' : undefined"
          @click="emit('choose', row.state.site)"
        >
          <th scope="row" class="text-left font-semibold">
            <span class="flex items-center gap-2">
              <svg viewBox="-8 -8 16 16" class="size-4 shrink-0" aria-hidden="true">
                <SiteGlyph :state="row.mark" :size="row.mark === 'now' ? 3.8 : 5" />
              </svg>
              <button type="button" class="text-left" @pointerdown.prevent>{{ row.site.name }}</button>
            </span>
          </th>
          <td v-if="showLast" class="figure last text-faded">
            {{ row.last === null ? '' : figureOf(row, row.last) }}
          </td>
          <td
            v-for="column in columns"
            :key="column"
            class="figure reading"
            :class="{ spare: column > base && !rows.some((other) => other.state.live.length >= base + 1) }"
          >
            <span v-if="isTyping(row, column)" class="typing">{{ typed || ' ' }}</span>
            <button
              v-else-if="readingAt(row, column)"
              type="button"
              class="kept"
              :class="{ 'text-faded italic': isLeftOut(row, column) }"
              :title="isLeftOut(row, column) ? 'Left out of the value: the closest two count' : undefined"
              :aria-pressed="readingAt(row, column)?.id === picked"
              :aria-label="
                isHidden(row)
                  ? `Hidden reading at ${row.site.name}: pick to strike`
                  : `${figureOf(row, valueAt(row, column))} at ${row.site.name}, reading ${column}${isLeftOut(row, column) ? ', left out of the value' : ''}: pick to strike`
              "
              @pointerdown.prevent
              @click.stop="emit('pick', readingAt(row, column)?.id ?? '')"
            >
              <template v-if="isHidden(row)">•</template>
              <template v-else>{{ figureOf(row, valueAt(row, column)) }}</template>
            </button>
            <sup
              v-if="!isTyping(row, column) && noted.has(readingAt(row, column)?.id ?? '')"
              class="text-faded"
              title="has a note"
              >n</sup
            >
            <span v-if="column === row.state.live.length && row.state.status === 'disputed'" class="apart">
              {{ figureOf(row, row.state.apart ?? 0) }} apart
            </span>
          </td>
          <td class="figure value">
            <template v-if="row.state.status === 'agreed' || row.state.status === 'unsteady'"
              >{{ valueParts(row)[0]
              }}<span class="invisible" aria-hidden="true">{{ valueParts(row)[1] }}</span></template
            >
            <span v-else-if="row.state.skipped !== null" class="left-out">{{ sayWhy(row.state.skipped) }}</span>
            <span v-if="row.state.status === 'unsteady'" class="apart">unsteady</span>
            <span
              v-if="row.state.struck.length > 0"
              class="struck"
              :aria-label="`Struck: ${row.state.struck.map(({ value }) => value).join(', ')}`"
            >
              <s v-for="reading in row.state.struck" :key="reading.id">{{ figureOf(row, valueOf(reading)) }}</s>
            </span>
          </td>
        </tr>
      </template>
    </tbody>
  </table>
</template>

<style scoped src="~/assets/log-sheet.css"></style>
