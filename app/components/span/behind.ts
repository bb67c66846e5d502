import type { ChartPoint } from './span-series'

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

interface Pen {
  coord(at: [number, number]): [number, number]
}

/** Something drawn behind a line as one path; a shape a point would take longer than all the rest of the chart. */
function behind(
  { grid, points }: Behind,
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

/** The level's band: how far a person may sit from the equation's line, the same at every visit. */
export function band(line: Behind) {
  const known = line.points.flatMap(({ at, low, high, comparable }) =>
    low !== null && high !== null && comparable ? [{ at, low, high }] : [],
  )
  if (known.length === 0) return []
  const style = { fill: line.colour, opacity: 0.13 }
  const edge = (place: (at: number, value: number) => string) => [
    ...known.map(({ at, high }) => place(at, high)),
    ...known.toReversed().map(({ at, low }) => place(at, low)),
  ]
  return [behind(line, 1, style, (place) => `M${edge(place).join('L')}Z`)]
}
