/**
 * What a fact can be, in one table: every schema, constraint, import and paste takes its bounds from here. Lengths cm, masses
 * kg, folds mm, days as ISO dates, both ends included.
 */
export const BOUNDS = {
  heightCm: { low: 90, high: 250 },
  weightKg: { low: 20, high: 350 },
  foldMm: { low: 1.5, high: 80 },
  /** Nobody is born before this day. */
  firstBirthDay: '1900-01-01',
  /** Nothing is measured, weighed or eaten before this day: an earlier one is a slip. */
  firstFactDay: '1990-01-01',
  /** Years instants and days of facts lie in. */
  firstYear: 1990,
  lastYear: 2199,
} as const
