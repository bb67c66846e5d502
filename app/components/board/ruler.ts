import { SLOT_MINUTES } from '#core/schedule'

/** Hours a day's ruler shows at least. */
const LEAST = { from: 8, to: 20 } as const

/** The hours a week's rulers show: those of every visit, and the usual ones. */
export function hoursOf(visits: readonly { minute: number; minutes: number }[], tight = false) {
  // On a phone the hours before the first visit and after the last would push everything else off the screen.
  let [from, to]: [number, number] = tight && visits.length > 0 ? [24, 0] : [LEAST.from, LEAST.to]
  for (const { minute, minutes } of visits) {
    from = Math.min(from, Math.floor(minute / 60))
    to = Math.max(to, Math.min(24, Math.ceil((minute + minutes) / 60)))
  }
  return { from, to }
}

/** A minute of the day as the nearest one visits begin at, within a day. */
export function snapped(minute: number): number {
  return Math.min(24 * 60 - SLOT_MINUTES, Math.max(0, Math.round(minute / SLOT_MINUTES) * SLOT_MINUTES))
}

/** A minute of the day as clocks show it. */
export function clockOf(minute: number): string {
  return `${String(Math.floor(minute / 60) % 24).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
}

/** A name where there is no room for it. */
export function initialsOf(name: string): string {
  return name
    .split(/\s+/)
    .map((word) => word.charAt(0))
    .slice(0, 2)
    .join('')
}
