import { computed, ref, watch, type Ref } from 'vue'
import { checkSlip, parseFold, type KnownValues, type Slip, type SlipMeasure, type Source } from '#core/readings'
import { isFold, type SiteId } from '#core/sites'
import {
  lengthToCm,
  massToKg,
  parseHeight,
  parseLength,
  parseWeight,
  type LengthUnit,
  type MassUnit,
} from '#core/units'
import type { Cell, Entered } from '~/composables/useMeasuring'

/** Signs a reading may be typed with: figures, and for lengths the fractions and feet people write. */
const SIGNS: Record<'fold' | 'weight' | 'length', RegExp> = {
  fold: /^[0-9.]$/,
  weight: /^[0-9.]$/,
  length: /^[0-9. /'"½¼¾]$/,
}
const LONGEST = { fold: 6, weight: 6, length: 12 } as const

/** What an entry is checked against and where it goes. */
export interface EntryContext {
  cell: Ref<Cell>
  massUnit: Ref<MassUnit>
  lengthUnit: Ref<LengthUnit>
  last: Ref<KnownValues>
  here: Ref<KnownValues>
  /** Days since last time; null: there was none. */
  daysSince: Ref<number | null>
  /** Distance of the caliper's marks, mm; null: not known. */
  resolutionMm: Ref<number | null>
  commit: (entered: Entered, source: Source, site?: SiteId) => void
  /** Strikes the newest reading of a site, for a swap. */
  strike: (site: SiteId) => void
  /** Told while something stands in the entry: until it is kept or taken back its cell stays the current one. */
  typing?: (open: boolean) => void
}

type Read = { entered: Entered; measured: number } | { problem: string }

/** The figure being typed, on the pad or the keyboard, what is odd about it, and what becomes of it on commit. */
export function useEntry({
  cell,
  massUnit,
  lengthUnit,
  last,
  here,
  daysSince,
  resolutionMm,
  commit,
  strike,
  typing,
}: EntryContext) {
  const text = ref('')
  const problem = ref<string | null>(null)
  /** A warning that has been shown for this very text: the next commit keeps it. */
  const slip = ref<Slip | null>(null)
  const isEmpty = computed(() => text.value === '')
  const kind = computed<'fold' | 'weight' | 'length'>(() =>
    cell.value.kind === 'site' && isFold(cell.value.site) ? 'fold' : cell.value.kind === 'weight' ? 'weight' : 'length',
  )
  const measure = computed<SlipMeasure | null>(() =>
    cell.value.kind === 'site' ? cell.value.site : cell.value.kind === 'none' ? null : cell.value.kind,
  )

  // A cell starts clean: what was typed for one site must never end up in another.
  watch(measure, () => clear())
  watch(isEmpty, (empty) => typing?.(!empty), { flush: 'sync' })

  function clear(): void {
    text.value = ''
    problem.value = null
    slip.value = null
  }

  function type(sign: string): void {
    const next = sign === ',' ? '.' : sign
    if (!SIGNS[kind.value].test(next)) return
    if (next === '.' && text.value.includes('.')) return
    if (text.value.length >= LONGEST[kind.value]) return
    problem.value = null
    slip.value = null
    text.value += next
  }

  function erase(): void {
    problem.value = null
    slip.value = null
    text.value = text.value.slice(0, -1)
  }

  function parse(): Read {
    if (kind.value === 'fold') {
      const fold = parseFold(text.value)
      return fold.ok ? { entered: { value: fold.mm, unit: 'mm' }, measured: fold.mm } : { problem: fold.sentence }
    }
    if (kind.value === 'weight') {
      const parsed = parseWeight(text.value, massUnit.value)
      if (parsed.kind !== 'value') return { problem: parsed.sentence }
      return { entered: parsed, measured: massToKg(parsed.value, parsed.unit) }
    }
    const length = cell.value.kind === 'height' ? parseHeight : parseLength
    const parsed = length(text.value, lengthUnit.value)
    if (parsed.kind !== 'value') return { problem: parsed.sentence }
    return { entered: parsed, measured: lengthToCm(parsed.value, parsed.unit) }
  }

  /** Keeps what is typed. A slip is said first; the same press again keeps the value all the same. */
  function keep(source: Source): void {
    if (measure.value === null) return
    if (isEmpty.value) {
      problem.value = 'Type the reading first.'
      return
    }
    const read = parse()
    const value = 'measured' in read ? read.measured : Number(text.value)
    const found = checkSlip({
      measure: measure.value,
      value,
      last: last.value,
      here: here.value,
      daysSince: daysSince.value,
      // A connected caliper reads as finely as it says.
      resolutionMm: source === 'caliper' ? null : resolutionMm.value,
    })
    if ('problem' in read) {
      problem.value = found?.blocks && found.correction ? found.sentence : read.problem
      slip.value = found?.blocks && found.correction ? found : null
      return
    }
    if (found && (found.blocks || slip.value?.sentence !== found.sentence)) {
      problem.value = found.sentence
      slip.value = found
      return
    }
    // Kept first: cleared, it would leave its cell.
    commit(read.entered, source)
    clear()
  }

  /** Takes the correction the warning proposes. */
  function correct(source: Source): void {
    const correction = slip.value?.correction
    if (!correction) return
    const { measure: at, value, swapWith } = correction
    const read = parse()
    if (swapWith && swapWith !== 'weight' && swapWith !== 'height' && 'entered' in read) {
      strike(swapWith)
      commit(read.entered, source, swapWith)
    }
    if (at === 'weight') commit({ value, unit: 'kg' }, source)
    else if (at === 'height') commit({ value, unit: 'cm' }, source)
    else commit({ value, unit: isFold(at) ? 'mm' : 'cm' }, source, at)
    clear()
  }

  /** A value from a connected device: put in whole, then kept like a typed one. */
  function fromDevice(value: number, source: Source): void {
    problem.value = null
    slip.value = null
    text.value = String(value)
    keep(source)
  }

  return { text, problem, slip, kind, fromDevice, isEmpty, type, erase, keep, correct, clear }
}
