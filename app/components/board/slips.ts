import type { BookingLine, VisitBrief } from '#shared/schemas/booking'
import { clockOf, initialsOf } from './ruler'

/** A visit as a slip of paper against the ruler of its day: everything it shows, worked out once. */
export interface Slip {
  id: string
  /** For whoever hears the screen. */
  said: string
  name: string
  /** Beside the name, where there is room; null: there is none. */
  beside: { clock: string; words: string } | null
  minded: boolean
  kind: 'done' | 'gone' | null
  clashes: boolean
  wide: boolean
  narrow: boolean
  /** As CSS, in one piece: three hundred are set at once. */
  style: string
}

/** Where a visit stands, and what is known of it. */
interface Seen {
  /** Minute of the day it begins. */
  minute: number
  lane: number
  lanes: number
  /** Its day is the wide one. */
  wide: boolean
  brief: VisitBrief | null
  clashes: boolean
  /** Who measures, in words. */
  assessor: string
  /** From the ruler's top, px. */
  top: number
  height: number
}

function stateOf({ state, checkin }: BookingLine): string | null {
  if (state === 'no-show') return 'did not come'
  if (!checkin) return null
  return checkin.finished ? 'measured' : 'being measured'
}

/** A visit as it is drawn. */
export function slipOf(visit: BookingLine, seen: Seen): Slip {
  const { minute, lane, lanes, wide, brief, clashes, assessor, top, height } = seen
  const minded = brief !== null && (brief.flags.length > 0 || brief.minor)
  const state = stateOf(visit)
  const clock = clockOf(minute)
  const end = clockOf(minute + visit.minutes)
  const [first = ''] = visit.clientName.split(' ')
  const initials = initialsOf(visit.clientName)
  const name = wide ? visit.clientName : lanes > 2 ? initials : first
  const beside = wide && lanes === 1 ? { clock, words: state ?? (visit.place || assessor) } : null
  // Begins with what is shown, so that whoever speaks to the screen can say what they see.
  const words = [
    beside ? `${clock} ${name} ${beside.words}` : name === initials ? name : null,
    beside ? `until ${end}` : `${visit.clientName}, ${clock} to ${end}`,
    ...[visit.place, assessor, state].filter((one) => one !== beside?.words),
    visit.movedFrom ? 'moved' : null,
    minded ? 'with cautions' : null,
    clashes ? 'clashes with another' : null,
  ]
  return {
    id: visit.id,
    said: `${words.filter(Boolean).join(', ')}. Arrows move it.`,
    name,
    beside,
    minded,
    kind: visit.state === 'no-show' ? 'gone' : visit.checkin?.finished ? 'done' : null,
    clashes,
    wide,
    narrow: !wide && lanes > 1,
    style: `top:${top}px;height:${height}px;left:calc(${(100 * lane) / lanes}% + 1px);width:calc(${100 / lanes}% - 3px)`,
  }
}
