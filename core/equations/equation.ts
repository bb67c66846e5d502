import type { FoldSiteId, SiteId } from '../sites'

export type Sex = 'female' | 'male'

/** What an equation can ask for: folds in mm, girths in cm, age in completed years, height in cm, weight in kg. */
export type InputId = SiteId | 'age' | 'height' | 'weight'

/** The numbers an equation computes from. Units as in InputId. */
export type Measures = Record<InputId, number>

/** Measures as far as they are known. */
export type KnownMeasures = Partial<Measures>

/** Where a parabola turns: from there on a bigger body would read leaner, so the estimate is refused. */
export interface Vertex {
  /** What is squared: the sum of the folds, or one input. */
  of: 'sum' | InputId
  /** Value at the turn: mm for folds, cm for girths. */
  at: number
}

/** On whom an equation was made. `tracking`: on nobody, a number to follow and not an estimate. */
export type Population = 'general' | 'athletes' | 'obese' | 'young' | 'tracking'

/** Completed years, both ends included. */
export interface AgeRange {
  low: number
  high: number
}

/** Choices some equations take. */
export interface FormulaOptions {
  /** The published term for Black athletes: only where the client record carries it and the coach has switched it on. */
  blackAthleteTerm: boolean
  /**
   * The abdomen as the mean of two levels, as the papers of Tran, Weltman and co-workers took it: half way from xiphoid to
   * navel (`waist`) and the navel (`abdomen`). Only where both were taken and the coach has chosen it.
   */
  abdomenOfTwo?: boolean
}

export const NO_OPTIONS: FormulaOptions = { blackAthleteTerm: false }

/** One published prediction equation: plain data plus one function. */
export interface Equation {
  id: string
  label: string
  sex: Sex | 'both'
  /** Ages of the derivation sample; null: not given. */
  ages: AgeRange | null
  /** Ages by sex, where the sample's differ. */
  agesBySex?: Readonly<Record<Sex, AgeRange>>
  population: Population
  sample: string
  inputs: readonly InputId[]
  /** Folds that are summed (S), when the equation works on a sum. */
  summed: readonly FoldSiteId[]
  /**
   * S in mm: each fold by its own name, which runs several times faster than a loop over `summed` and is tested against
   * it. Null for equations that sum nothing.
   */
  sum: ((measures: Measures) => number) | null
  /** Range of the sum in the derivation sample, mm (recalled); null: not known here. */
  sums: { low: number; high: number } | null
  gives: 'density' | 'percent'
  /** From size alone, without a fold or a tape that tells fat from muscle. */
  sizeOnly?: true
  /**
   * Standard error of estimate in percent-fat points (68 %): how far a person may sit from the line. Null: not known
   * here.
   */
  seePercent: Readonly<Record<Sex, number | null>>
  source: string
  vertex: Vertex | null
  /** What has to be known beside every answer, as a caution. */
  note?: string | ((options: FormulaOptions) => string)
  /** What an option of it takes besides, where it is known: its error goes into the answer's. */
  optional?: readonly InputId[]
  /**
   * The formula as printed: S the sum in mm, girths and height in cm, lb = weight / 0.45359237, BMI = kg / m^2, s = 1 for
   * women and 0 for men, b = 1 where the term for Black athletes is on, log10 the decimal logarithm.
   */
  expression: string
  /** Differences that stand in a logarithm: each must be positive, else the estimate is refused with the sentence. */
  positive?: readonly { of: (measures: Measures) => number; sentence: string }[]
  /** Body density in g/mL or percent fat, unrounded, for finite inputs. */
  formula: (measures: Measures, sex: Sex, options: FormulaOptions) => number
}

/** Said next to every equation whose figures were not read again in the paper. */
export const RECALLED = 'Coefficients recalled, not re-read in the paper.'

/** Adults, where the paper's own limits are not known here. */
export const ADULTS: AgeRange = { low: 18, high: Infinity }

export const NO_SEE = { female: null, male: null } as const

/** The same published error for both sexes. */
export function see(points: number): Record<Sex, number> {
  return { female: points, male: points }
}
