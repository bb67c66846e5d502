import { TZDate } from '@date-fns/tz'
import { addMonths, addWeeks, differenceInDays, format, startOfMonth, startOfWeek } from 'date-fns'
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
  let year: string | null = null
  for (let month = startOfMonth(start); +month <= +addMonths(last, 1); month = addMonths(month, 1)) {
    const x = scale(+month)
    if (!inside(x)) continue
    const named = x >= free && x < width - 40
    const thisYear = format(month, 'yyyy')
    const label = named ? format(month, thisYear === year ? 'MMM' : 'MMM yyyy') : null
    if (named) {
      free = x + LABEL_ROOM
      year = thisYear
    }
    ticks.push({ x, long: true, label })
  }
  return ticks
}
