import type { FoldSiteId } from '../sites'

export type Sex = 'female' | 'male'

/** What an equation can ask for: folds in mm, age in completed years, height in cm, weight in kg. */
export type InputId = FoldSiteId | 'age' | 'height' | 'weight'

/** The numbers an equation computes from. Units as in InputId. */
export type Measures = Record<InputId, number>

/** Measures as far as they are known. */
export type KnownMeasures = Partial<Measures>

/** Where a parabola turns: from there on a bigger fold would read leaner, so the estimate is refused. */
export interface Vertex {
  /** What is squared: the sum of the folds, or one input. */
  of: 'sum' | InputId
  /** Value at the turn, mm for folds. */
  at: number
}

/** One published prediction equation: plain data plus one function. */
export interface Equation {
  id: string
  label: string
  sex: Sex | 'both'
  /** Ages of the derivation sample, completed years, both ends included. */
  ages: { low: number; high: number } | null
  sample: string
  inputs: readonly InputId[]
  /** Folds that are summed, when the equation works on a sum. */
  summed: readonly FoldSiteId[]
  gives: 'density' | 'percent'
  /** Standard error of estimate in percent-fat points (68 %): how far a person may sit from the line. Null: not published. */
  seePercent: number | null
  source: string
  vertex: Vertex | null
  /** Body density in g/mL or percent fat, unrounded, for finite inputs. */
  formula: (measures: Measures) => number
}

/** Said next to every equation whose figures were not read again in the paper. */
export const RECALLED = 'Coefficients recalled, not re-read in the paper.'
