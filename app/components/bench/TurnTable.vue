<script setup lang="ts">
import { orderFor } from '#core/study'
import type { StudyRecord, StudyTurnRecord } from '#shared/schemas/study'
import { useMe } from '~/stores/me'

/** Who is measured by whom, in which order: a cell is a press away from the log sheet. */
const props = defineProps<{ study: StudyRecord }>()
const emit = defineEmits<{
  measure: [personId: string, penId: string]
  drop: [personId: string]
  void: [checkinId: string]
}>()
const store = useMe()

interface Cell {
  penId: string
  name: string
  turn: StudyTurnRecord | null
  /** Whose place it is in this person's order, from 1. */
  place: number
  /** Theirs to measure: an assessor measures for nobody else. */
  mine: boolean
  next: boolean
}

const rows = computed(() =>
  props.study.people.map((person, i) => {
    const { pens, kind, turns } = props.study
    const own = turns.filter(({ personId }) => personId === person.id)
    const cells: Cell[] =
      kind === 'repeat'
        ? ([1, 2] as const).map((trial) => cellOf(pens[0], own.find((turn) => turn.trial === trial) ?? null, trial))
        : orderFor(i, pens.length).map((pen, j) => {
            const found = pens[pen]
            return cellOf(found, own.find(({ penId }) => penId === found?.id) ?? null, j + 1)
          })
    const next = cells.find(({ turn }) => !turn?.finished)
    return { person, started: own.length > 0, cells: cells.map((cell) => ({ ...cell, next: cell === next })) }
  }),
)

function cellOf(pen: StudyRecord['pens'][number] | undefined, turn: StudyTurnRecord | null, place: number): Cell {
  const name = props.study.kind === 'repeat' ? (place === 1 ? 'first' : 'again') : (pen?.name ?? '')
  const mine = !pen?.staffId || pen.staffId === store.me?.staff.id
  return { penId: pen?.id ?? '', name, turn, place, mine, next: false }
}
</script>

<template>
  <ScrollTable label="Who is measured by whom">
    <table class="ruled">
      <thead>
        <tr>
          <th scope="col">Who</th>
          <th v-for="(_, i) in rows[0]?.cells ?? []" :key="i" scope="col">{{ i + 1 }}.</th>
          <th scope="col"><span class="sr-only">Take out</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ person, cells, started } in rows" :key="person.id">
          <th scope="row">{{ person.name }}</th>
          <td
            v-for="cell in cells"
            :key="cell.place"
            :data-turn="cell.turn?.finished ? 'done' : cell.turn ? 'open' : 'to-come'"
          >
            <span v-if="cell.turn?.finished" class="flex items-center gap-2">
              <svg viewBox="0 0 12 12" class="size-3 text-lean" aria-hidden="true">
                <path d="M1 7l3 3 7-8" fill="none" stroke="currentColor" stroke-width="2" />
              </svg>
              {{ cell.name }}
              <button
                v-if="!study.closedOn"
                type="button"
                class="min-h-9 text-sm text-faded underline underline-offset-4"
                :aria-label="`void the turn of ${person.name}, ${cell.name}`"
                @click="emit('void', cell.turn.checkinId)"
              >
                void
              </button>
            </span>
            <button
              v-else-if="!study.closedOn && cell.mine && (cell.next || study.group)"
              type="button"
              class="press min-h-11"
              :class="{ 'press-first': cell.next }"
              @click="emit('measure', person.id, cell.penId)"
            >
              {{ cell.turn ? 'go on' : cell.name }}
            </button>
            <span v-else class="text-faded">{{ cell.name }}{{ cell.turn ? ', under way' : '' }}</span>
          </td>
          <td class="right">
            <button
              v-if="!started && !study.closedOn"
              type="button"
              class="min-h-9 text-sm text-faded underline underline-offset-4"
              :aria-label="`take out ${person.name}`"
              @click="emit('drop', person.id)"
            >
              take out
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </ScrollTable>
</template>
