import { computed, ref, watch, type Ref } from 'vue'
import { parseFold, type Source } from '#core/readings'
import { parseWeight, type MassUnit } from '#core/units'
import type { Cell } from '~/composables/useMeasuring'

const LONGEST = 6

interface Commit {
  fold: (mm: number, source: Source) => void
  weight: (value: number, unit: MassUnit, source: Source) => void
}

/** The figure being typed, on the pad or the keyboard, and what becomes of it on commit. */
export function useEntry(cell: Ref<Cell>, massUnit: Ref<MassUnit>, commit: Commit) {
  const text = ref('')
  const problem = ref<string | null>(null)
  const isEmpty = computed(() => text.value === '')

  // A cell starts clean: what was typed for one site must never end up in another.
  const cellKey = computed(() => (cell.value.kind === 'fold' ? cell.value.site : cell.value.kind))
  watch(cellKey, () => clear())

  function clear(): void {
    text.value = ''
    problem.value = null
  }

  function type(sign: string): void {
    const next = sign === ',' ? '.' : sign
    if (next === '.' && text.value.includes('.')) return
    if (text.value.length >= LONGEST) return
    problem.value = null
    text.value += next
  }

  function erase(): void {
    problem.value = null
    text.value = text.value.slice(0, -1)
  }

  function commitFold(source: Source): void {
    const entry = parseFold(text.value)
    if (!entry.ok) {
      problem.value = entry.sentence
      return
    }
    clear()
    commit.fold(entry.mm, source)
  }

  function commitWeight(source: Source): void {
    const parsed = parseWeight(text.value, massUnit.value)
    if (parsed.kind !== 'value') {
      problem.value = parsed.sentence
      return
    }
    clear()
    commit.weight(parsed.value, parsed.unit, source)
  }

  function keep(source: Source): void {
    if (isEmpty.value) {
      problem.value = 'Type the reading first.'
      return
    }
    if (cell.value.kind === 'weight') commitWeight(source)
    else if (cell.value.kind === 'fold') commitFold(source)
  }

  return { text, problem, isEmpty, type, erase, keep, clear }
}
