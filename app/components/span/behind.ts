import type { ChartPoint, CoursePlace } from './span-series'

/** What whiskers and a band are drawn from. */
export interface Behind {
  colour: string
  grid: number
  points: readonly ChartPoint[]
}

/** A line of the chart. */
export interface Drawn extends Behind {
  name: string
  symbol: string
}

interface BandPoint {
  at: number
  low: number | null
  high: number | null
  comparable?: boolean
}

interface Pen {
  coord(at: [number, number]): [number, number]
}

/** Something drawn behind a line as one path; a shape a point would take longer than all the rest of the chart. */
function behind(
  { grid, points }: { grid: number; points: readonly { at: number; value: number }[] },
  z: number,
  style: Record<string, unknown>,
  path: (place: (at: number, value: number) => string) => string,
) {
  return {
    type: 'custom',
    name: '',
    xAxisIndex: grid,
    yAxisIndex: grid,
    silent: true,
    clip: true,
    tooltip: { show: false },
    // One item, so drawn once; where it lies does not matter.
    data: points.slice(0, 1).map(({ at, value }) => [at, value]),
    renderItem: (_: unknown, pen: Pen) => ({
      type: 'path',
      shape: {
        pathData: path((at, value) =>
          pen
            .coord([at, value])
            .map((pixel) => pixel.toFixed(1))
            .join(' '),
        ),
      },
      style,
    }),
    z,
  }
}

/** Whiskers: the 95 % interval of measuring. */
export function whiskers(line: Behind) {
  return behind(line, 2, { stroke: line.colour, fill: 'none', lineWidth: 1.6 }, (place) =>
    line.points.map(({ at, value, error }) => `M${place(at, value + error)}L${place(at, value - error)}`).join(''),
  )
}

/** A band between two lines: low and high at every point that has both and compares. */
export function band(line: Pick<Behind, 'colour' | 'grid'> & { points: readonly BandPoint[] }) {
  const known = line.points.flatMap(({ at, low, high, comparable = true }) =>
    low !== null && high !== null && comparable ? [{ at, low, high }] : [],
  )
  const [first] = known
  if (!first) return []
  const style = { fill: line.colour, opacity: 0.13 }
  const edge = (place: (at: number, value: number) => string) => [
    ...known.map(({ at, high }) => place(at, high)),
    ...known.toReversed().map(({ at, low }) => place(at, low)),
  ]
  const at = { ...line, points: [{ at: first.at, value: first.high }] }
  return [behind(at, 1, style, (place) => `M${edge(place).join('L')}Z`)]
}

/** A smoothed course with its band: one calm line. */
export function course({ colour, grid }: Behind, places: readonly CoursePlace[]) {
  if (places.length === 0) return []
  const style = { stroke: colour, fill: 'none', lineWidth: 2.5, lineJoin: 'round' }
  return [
    ...band({ colour, grid, points: places }),
    behind(
      { grid, points: places },
      2,
      style,
      (place) => `M${places.map(({ at, value }) => place(at, value)).join('L')}`,
    ),
  ]
}
