<script setup lang="ts">
import { SITES } from '#core/sites'
import type { FileProblem, TableLook, TablePlanInput } from '#shared/schemas/data'
import type { ColumnMeaning } from '../../../exchange/table/headings'

/** A table as it was understood: its columns with what they hold, its first rows, and what is to be said about it. */
const props = defineProps<{ table: TableLook; problems: readonly FileProblem[] }>()
const emit = defineEmits<{ change: [plan: TablePlanInput] }>()

const plan = computed(() => props.table.plan)
const { options, find } = useClientOptions()
onMounted(() => find(''))

const sets = computed(() =>
  props.table.sets.map(({ id, name, lacks }) => ({
    id,
    name,
    ...(lacks.length > 0 ? { note: `lacks ${lacks.map((site) => SITES[site].name.toLowerCase()).join(', ')}` } : {}),
  })),
)
const measures = computed(() => plan.value.columns.some(({ means }) => means !== null && means in SITES))
const namesPeople = computed(() =>
  plan.value.columns.some(({ means }) => means === 'client' || means === 'first-name' || means === 'last-name'),
)
const change = (more: Partial<TablePlanInput>) => emit('change', { ...plan.value, ...more })
const setColumn = (place: number, column: ColumnMeaning) =>
  change({ columns: plan.value.columns.map((one, i) => (i === place ? column : one)) })

/** Problems of a column as a whole stand at its heading. */
const atHeading = (place: number) =>
  props.problems.find(({ line, column }) => line === plan.value.headingLine && column === place)?.message
const atCell = (row: number, place: number) =>
  props.problems.find(({ line, column }) => line === plan.value.headingLine + 1 + row && column === place)?.message
const LAYOUTS = [
  { id: 'rows', name: 'One row a check-in' },
  { id: 'columns', name: 'One column a check-in' },
] as const
const ORDERS = [
  { id: 'day-first', name: 'Day first: 3/4 is 3 April' },
  { id: 'month-first', name: 'Month first: 3/4 is 4 March' },
] as const
</script>

<template>
  <div class="grid gap-3" data-table-plan>
    <div class="flex flex-wrap items-end gap-x-5 gap-y-3">
      <ListField
        v-if="table.sheets.length > 1"
        class="w-52"
        label="Sheet"
        name="sheet"
        :model-value="plan.sheet"
        :options="table.sheets.map((name) => ({ id: name, name }))"
        @update:model-value="change({ sheet: $event, columns: [] })"
      />
      <PickField
        v-if="measures"
        class="w-80"
        label="Set of sites"
        name="set"
        :model-value="plan.protocolId"
        :options="sets"
        @update:model-value="$event && change({ protocolId: $event })"
      />
      <PickField
        v-if="!namesPeople || plan.clientId"
        class="w-64"
        label="Whose log is it"
        name="logOf"
        none="a column says so"
        :model-value="plan.clientId"
        :options="options"
        @find="find"
        @update:model-value="change({ clientId: $event })"
      />
      <PressGroup
        label="How check-ins stand in the table"
        :model-value="plan.layout"
        :options="LAYOUTS"
        @update:model-value="$event && change({ layout: $event as 'rows' | 'columns', columns: [], headingLine: 1 })"
      />
      <PressGroup
        v-if="table.asksOrder"
        label="How its dates are written"
        :model-value="plan.dateOrder"
        :options="ORDERS"
        @update:model-value="change({ dateOrder: $event as 'day-first' | 'month-first' | null })"
      />
    </div>
    <ScrollTable label="The first rows of the file" class="min-h-96">
      <table class="w-full border-collapse">
        <thead>
          <tr>
            <ColumnHead
              v-for="(column, i) in plan.columns"
              :key="i"
              :heading="table.headings[i] ?? ''"
              :place="i"
              :column="column"
              :problem="atHeading(i)"
              @change="setColumn(i, $event)"
            />
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, r) in table.samples" :key="r" class="border-b border-rule">
            <td
              v-for="(cell, i) in row"
              :key="i"
              class="figure max-w-48 truncate px-2 py-1.5 text-[15px]"
              :class="{
                'text-faded': plan.columns[i]?.means === 'left-out',
                'bg-alert/10 font-semibold text-alert': atCell(r, i),
              }"
              :title="atCell(r, i)"
            >
              {{ cell }}
            </td>
          </tr>
        </tbody>
      </table>
    </ScrollTable>
    <p v-if="table.rows > table.samples.length" class="text-[15px] text-faded">
      The first {{ table.samples.length }} of {{ table.rows.toLocaleString('en') }} rows; all of them were looked
      through.
    </p>
  </div>
</template>
