import { TZDate } from '@date-fns/tz'
import { addMonths, addWeeks, differenceInDays, format, startOfWeek } from 'date-fns'
import { studioZone } from '~/composables/useDays'

/** A tick of the tape: a week or the beginning of a labelled month. */
export interface Tick {
  x: number
  long: boolean
  label: string | null
}

const PAD = 28
/** Labels nearer than this would touch, pixels. */
const LABEL_ROOM = 78

/** Where an instant lies on a tape of this width, pixels. */
export function tapeScale(first: number, last: number, width: number): (at: number) => number {
  const length = Math.max(1, last - first)
  return (at) => PAD + ((at - first) / length) * Math.max(0, width - 2 * PAD)
}

/** Weekly ticks (monthly on long tapes) with as many month labels as have room. */
export function tapeTicks(first: number, last: number, width: number): Tick[] {
  const scale = tapeScale(first, last, width)
  const days = differenceInDays(last, first)
  const start = new TZDate(first, studioZone())
  const inside = (x: number) => x >= 0 && x <= width
  const ticks: Tick[] = []
  if (days < 900) {
    for (let week = startOfWeek(start, { weekStartsOn: 1 }); +week <= +addWeeks(last, 1); week = addWeeks(week, 1)) {
      if (inside(scale(+week))) ticks.push({ x: scale(+week), long: false, label: null })
    }
  }
  let free = 0
  let year: number | null = null
  const end = +addMonths(last, 1)
  // Walked by the calendar alone: a date that carries its zone through every step costs ten times the work.
  for (let month = new Date(start.getFullYear(), start.getMonth()); ; month = addMonths(month, 1)) {
    const at = +new TZDate(month.getFullYear(), month.getMonth(), studioZone())
    if (at > end) break
    const x = scale(at)
    if (!inside(x)) continue
    const named = x >= free && x < width - 40
    const label = named ? format(month, month.getFullYear() === year ? 'MMM' : 'MMM yyyy') : null
    if (named) {
      free = x + LABEL_ROOM
      year = month.getFullYear()
    }
    ticks.push({ x, long: true, label })
  }
  return ticks
}
