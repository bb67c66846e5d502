import type { WayId } from './ways'

/** Measuring schools. A site belongs to one or both; what they define differently is two sites. */
export type School = 'laboratory' | 'kinanthropometry' | 'contest-prep' | 'tape' | 'home'

/** How the crest of a fold runs, as seen on the figure of the side that is measured (the client's right). */
export type FoldDirection = 'vertical' | 'horizontal' | 'down-and-in' | 'down-and-out' | 'along-limb'

/** A point on the figure: 200 wide, 460 high, midline at 100, the client's right side measured. */
export interface FigurePoint {
  view: 'front' | 'back'
  x: number
  y: number
}

/** One skinfold site: a definition, not a body region. */
export interface FoldSite {
  kind: 'fold'
  id: string
  name: string
  schools: readonly School[]
  /** One line at arm's length: where, and how the fold runs. */
  where: string
  direction: FoldDirection
  /** Landmark steps, in order, in the product's own words. */
  steps: readonly string[]
  hint?: string
  /** Several accepted ways to lift it: which one is recorded with the reading. */
  ways?: readonly WayId[]
  figure: FigurePoint
}

/** One girth site. */
export interface GirthSite {
  kind: 'girth'
  id: string
  name: string
  schools: readonly School[]
  where: string
  steps: readonly string[]
  hint?: string
  figure: FigurePoint
  /** Old values only: nothing is measured there any more. */
  former?: true
  /** What a body can have, cm. Outside, a reading is blocked. */
  rangeCm: { low: number; high: number }
}

export type Site = FoldSite | GirthSite
