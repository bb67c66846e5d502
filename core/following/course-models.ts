/** How something may have changed: along a straight line, as a random walk, or along a line whose slope wanders. */
export interface CourseModel {
  kind: 'line' | 'walk' | 'bend'
  /**
   * In visit sds: of a line's slope a week, of a walk's step a square-root week, of how far a slope wanders a square-root
   * week (an integrated random walk).
   */
  sd: number
  weight: number
}

const models = (kind: CourseModel['kind'], rows: readonly (readonly [sd: number, weight: number])[]): CourseModel[] =>
  rows.map(([sd, weight]) => ({ kind, sd, weight }))

/** The courses held possible where something changed, for the odds (following.md, second edition). */
export const COURSES: readonly CourseModel[] = [
  ...models('line', [
    [0.1, 0.2],
    [0.25, 0.25],
    [0.6, 0.12],
    [1.5, 0.03],
  ]),
  ...models('walk', [
    [0.3, 0.1],
    [1, 0.05],
    [3, 0.02],
  ]),
  ...models('bend', [
    [0.03, 0.08],
    [0.1, 0.1],
    [0.3, 0.05],
  ]),
]

/** Courses that are filtered each by themselves; lines come out of the run without any. */
export const WANDERING = COURSES.filter(({ kind }) => kind !== 'line')

/** Place of a wandering course among the runs, the one without any first. */
export function runOf({ kind, sd }: Pick<CourseModel, 'kind' | 'sd'>): number {
  const place = WANDERING.findIndex((one) => one.kind === kind && one.sd === sd)
  if (kind === 'line') return 0
  if (place < 0) throw new RangeError(`No run for a ${kind} of ${sd}.`)
  return place + 1
}

/**
 * Courses for the estimate, its interval and the smoothed course. Something or other has happened: slopes are held for wider
 * than where the question is whether anything did, so that a steady change is not drawn back towards none (tried in
 * `npm run bench:truth`; docs/decisions.md).
 */
export const ESTIMATE_COURSES: readonly CourseModel[] = [
  ...models('line', [
    [0.1, 0.04],
    [0.25, 0.2],
    [0.6, 0.28],
    [1.5, 0.18],
    [5, 0.06],
  ]),
  ...models('walk', [
    [0.3, 0.03],
    [1, 0.01],
    [3, 0.005],
  ]),
  ...models('bend', [
    [0.03, 0.08],
    [0.1, 0.08],
    [0.3, 0.035],
  ]),
]
