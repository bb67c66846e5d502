import type { Point } from '../curve'

/** A pair of numbers, mm: across and down. */
export type Pair = readonly [number, number]

/** A part of the body as it is drawn, in mm, the client's right side: shapes are skin lines, filled; lines are what one sees on it. */
export interface Region {
  /** What is seen, and from where. */
  view: string
  width: number
  height: number
  /** What is shown beside it, left and right, for names. */
  room?: number
  shapes: readonly (readonly Pair[])[]
  lines: readonly (readonly Pair[])[]
}

/** A landmark: felt as bone, or seen on the skin. */
export interface Landmark {
  name: string
  kind: 'bone' | 'skin'
  at: Pair
  /** Where its name stands. */
  label: 'left' | 'right' | 'above' | 'below'
}

/**
 * How a mark is found from landmarks, in mm:
 * - between: a share of the way from one to the other
 * - from: so far across and down from one
 * - crossing: straight under or over one, at the level of another
 * - on-line: on the line between two, at the level of a third
 */
export type MarkRule =
  | { rule: 'between'; from: string; to: string; share: number }
  | { rule: 'from'; from: string; across: number; down: number }
  | { rule: 'crossing'; under: string; level: string }
  | { rule: 'on-line'; from: string; to: string; level: string }

/** A line that is thought or measured on the way to the mark; with ticks of a centimetre where it is measured. */
export interface GuideLine {
  from: string | Pair
  to: string | Pair | 'mark'
  /** Measured with the tape: it carries centimetres. */
  measured?: true
  words?: string
  /** Where its words stand beside its middle. */
  label?: 'left' | 'right' | 'above' | 'below'
  /** How far along its words stand; half way without it. */
  wordsAt?: number
}

/** What every close-up has. */
interface Drawn {
  region: string
  landmarks: Readonly<Record<string, Landmark>>
  guides: readonly GuideLine[]
}

/** A fold's close-up: where its mark is and how the crest runs, degrees clockwise from upright. */
export interface FoldCloseUp extends Drawn {
  kind: 'fold'
  mark: MarkRule
  /** Where the mark of a woman is another one. */
  female?: MarkRule
  crest: number
}

/** A girth's close-up: the tape from skin line to skin line, and how far it hangs lower in front, mm. */
export interface GirthCloseUp extends Drawn {
  kind: 'girth'
  tape: { from: Pair; to: Pair; sag: number }
}

export type CloseUp = FoldCloseUp | GirthCloseUp

/** A bony point, and a place on the skin, as close-ups name them. */
export const bone = (name: string, at: Pair, label: Landmark['label']): Landmark => ({ kind: 'bone', name, at, label })
export const skin = (name: string, at: Pair, label: Landmark['label']): Landmark => ({ kind: 'skin', name, at, label })

/** A pair as a point. */
export function pointOf([x, y]: Pair): Point {
  return { x, y }
}

/** Where a mark is, from its landmarks' places. Throws RangeError for a landmark that is not there. */
export function findMark(rule: MarkRule, placeOf: (landmark: string) => Point): Point {
  switch (rule.rule) {
    case 'between': {
      const [a, b] = [placeOf(rule.from), placeOf(rule.to)]
      return { x: a.x + (b.x - a.x) * rule.share, y: a.y + (b.y - a.y) * rule.share }
    }
    case 'from': {
      const a = placeOf(rule.from)
      return { x: a.x + rule.across, y: a.y + rule.down }
    }
    case 'crossing':
      return { x: placeOf(rule.under).x, y: placeOf(rule.level).y }
    case 'on-line': {
      const [a, b, { y }] = [placeOf(rule.from), placeOf(rule.to), placeOf(rule.level)]
      return { x: a.x + ((b.x - a.x) * (y - a.y)) / (b.y - a.y), y }
    }
  }
}

/** The places of a close-up's landmarks. */
export function landmarkPlaces({ landmarks }: Drawn): (id: string) => Point {
  return (id) => {
    const found = landmarks[id]
    if (!found) throw new RangeError(`no landmark ${id}`)
    return pointOf(found.at)
  }
}

/** A fold's mark in its region, mm; for a woman where hers is another. */
export function markAt(closeUp: FoldCloseUp, sex: 'female' | 'male' = 'male'): Point {
  const rule = sex === 'female' ? (closeUp.female ?? closeUp.mark) : closeUp.mark
  return findMark(rule, landmarkPlaces(closeUp))
}
