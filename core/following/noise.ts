/*
 * How the errors of one figure's visits hang together, and how wide they are: a small grid. A client has one type of noise
 * and one variance, in units of the figure's assumed visit variance; the studio says how likely each is.
 */

/** A type of noise: of a visit's variance a share is new at every visit, the rest decays from week to week. */
export interface NoiseType {
  /** Correlation of the lasting part over one week; 0: none. */
  rho: number
  /** Share of the variance that is new at every visit. */
  white: number
  /** True where a hand drifts and a season turns beneath it: `SLOW`. */
  slow?: true
}

/** Slow noise, visit sds: a drift's slope a week, and a wave of a year. */
export const SLOW = { driftSd: 0.05, seasonSd: 0.4, seasonWeeks: 52.18 } as const

/** The types held possible: white, white with slow noise, and lasting ones. */
export const NOISE_TYPES: readonly NoiseType[] = [
  { rho: 0, white: 1 },
  { rho: 0, white: 1, slow: true },
  ...[
    [0.4, [0.05, 0.5]],
    [0.7, [0.05, 0.4]],
    [0.85, [0.02, 0.2, 0.6]],
    [0.93, [0.02, 0.1, 0.3, 0.6]],
    [0.97, [0.02, 0.1, 0.3, 0.6]],
  ].flatMap(([rho, whites]) => (whites as number[]).map((white) => ({ rho: rho as number, white }))),
]

/** Correlation from which noise lasts so long that a wide one is never learnt away. */
export const VERY_LASTING = 0.9

/** Scales a client's variance may have about, in units of the assumed variance: half octaves from 1/4 to 4. */
export const SCALES: readonly number[] = Array.from({ length: 9 }, (_, k) => 2 ** ((k - 4) / 2))

/** Degrees of freedom of a client's variance about its scale: how alike people are. */
export const FREEDOMS: readonly number[] = [6, 20, 80]

/** How many cells the grid of types, scales and degrees of freedom has. */
export const CELLS = NOISE_TYPES.length * SCALES.length * FREEDOMS.length

/** Place of a cell in the grid. */
export function cellOf(type: number, scale: number, freedom: number): number {
  return (type * SCALES.length + scale) * FREEDOMS.length + freedom
}

/** What is held of a figure's noise for one client: weights over the grid, and what they were learnt from. */
export interface Noise {
  /** Cells that count, and the weight of each; the weights add up to one. */
  cells: readonly number[]
  weights: readonly number[]
  learntFrom: {
    /** Other clients with four check-ins and more, their check-ins, and those with five and more. */
    clients: number
    visits: number
    followed: number
    /** Repeat studies of the hand that measured. */
    studies?: number
  }
}

/** Cells lighter than this are left out. */
const LIGHT = 2e-5

/** A noise from the weights of every cell. */
export function noiseFrom(all: Float64Array, learntFrom: Noise['learntFrom']): Noise {
  let total = 0
  for (let cell = 0; cell < all.length; cell += 1) total += all[cell] as number
  const cells: number[] = []
  let held = 0
  for (let cell = 0; cell < all.length; cell += 1) {
    const weight = all[cell] as number
    if (weight <= LIGHT * total) continue
    cells.push(cell)
    held += weight
  }
  return { cells, weights: cells.map((cell) => (all[cell] as number) / held), learntFrom }
}

/** Cells beneath this are left out of a noise that is kept or sent. */
const THIN = 3e-4

/** A noise with its light cells left out and four digits of each weight: a third of the size, the same answers. */
export function thinned({ cells, weights, learntFrom }: Noise): Noise {
  const held = cells.flatMap((cell, k) =>
    (weights[k] as number) > THIN ? [{ cell, weight: weights[k] as number }] : [],
  )
  const total = held.reduce((sum, { weight }) => sum + weight, 0)
  return {
    cells: held.map(({ cell }) => cell),
    weights: held.map(({ weight }) => Number((weight / total).toPrecision(4))),
    learntFrom,
  }
}

/** Type, scale and degrees of freedom of a cell, each by its place. */
export function placesOf(cell: number): { type: number; scale: number; freedom: number } {
  const freedom = cell % FREEDOMS.length
  const scale = Math.floor(cell / FREEDOMS.length) % SCALES.length
  return { type: Math.floor(cell / (FREEDOMS.length * SCALES.length)), scale, freedom }
}

/** Mean over the grid of what each cell says. */
export function meanOver({ cells, weights }: Noise, of: (type: NoiseType, scale: number, freedom: number) => number) {
  return cells.reduce((sum, cell, k) => {
    const { type, scale, freedom } = placesOf(cell)
    const said = of(NOISE_TYPES[type] as NoiseType, SCALES[scale] as number, FREEDOMS[freedom] as number)
    return sum + (weights[k] as number) * said
  }, 0)
}

/** The scale a noise makes of the assumed variance: 1 where nothing is learnt, else the middle of what is held likely. */
export function scaleOf(noise: Noise): number {
  const { clients, studies = 0 } = noise.learntFrom
  return clients + studies === 0 ? 1 : Math.exp(meanOver(noise, (_, scale) => Math.log(scale)))
}

/** One figure of one client over time. */
export interface FigureHistory {
  /** Weeks from any zero, rising. */
  weeks: readonly number[]
  values: readonly number[]
  /** Assumed variance of each value, unit squared. */
  variances: readonly number[]
}
