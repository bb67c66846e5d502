import { addMonths, format, startOfMonth } from 'date-fns'

/** A line of the take-home chart: check-ins with half of each one's 95 % interval, and the smoothed course. Milliseconds. */
export interface ChartLine {
  /** Which figure it is; left out: a plan's. */
  figure?: string
  name: string
  colour: string
  points: { at: number; value: number; error: number }[]
  course: { at: number; value: number; low: number; high: number }[]
}

const WIDTH = 515
const LEFT = 34
/** Between two panels, points. */
const GAP = 16
const INK = '#22201b'
const FADED = '#665d50'
const RULE = '#d9d1c3'

function escaped(text: string): string {
  return text.replace(/[<>&"]/g, (sign) => `&#${sign.charCodeAt(0)};`)
}

/** A round step that gives about four ticks over a range. */
function stepOf(range: number): number {
  const rough = range / 4
  const power = 10 ** Math.floor(Math.log10(rough))
  return [1, 2, 5, 10].map((times) => times * power).find((step) => step >= rough) ?? power
}

function text(
  x: number,
  y: number,
  words: string,
  size: number,
  colour: string,
  anchor = 'start',
  bold = false,
): string {
  return `<text x="${x}" y="${y}" font-family="Text" font-size="${size}" fill="${colour}" text-anchor="${anchor}"${bold ? ' font-weight="bold"' : ''}>${escaped(words)}</text>`
}

function panel(line: ChartLine, top: number, height: number, across: (at: number) => number): string {
  const low = Math.min(...line.points.map(({ value, error }) => value - error), ...line.course.map((one) => one.low))
  const high = Math.max(...line.points.map(({ value, error }) => value + error), ...line.course.map((one) => one.high))
  const step = stepOf(Math.max(high - low, 1e-6))
  const from = Math.floor(low / step) * step
  const to = Math.ceil(high / step) * step
  const up = (value: number) => top + 14 + (1 - (value - from) / Math.max(step, to - from)) * (height - 14)
  const ticks: string[] = []
  for (let value = from; value <= to + step / 2; value += step) {
    ticks.push(
      `<line x1="${LEFT}" x2="${WIDTH}" y1="${up(value)}" y2="${up(value)}" stroke="${RULE}" stroke-width="0.6"/>`,
      text(LEFT - 5, up(value) + 3, String(Number(value.toFixed(2))), 8, FADED, 'end'),
    )
  }
  const through = (points: readonly { at: number; value: number }[]) =>
    points.map(({ at, value }) => `${across(at)} ${up(value)}`).join('L')
  const { course } = line
  const band = [
    ...course.map(({ at, high: value }) => ({ at, value })),
    ...course.toReversed().map(({ at, low: value }) => ({ at, value })),
  ]
  const marks = line.points.map(
    ({ at, value, error }) =>
      `<line x1="${across(at)}" x2="${across(at)}" y1="${up(value - error)}" y2="${up(value + error)}" stroke="${line.colour}" stroke-width="1"/>` +
      `<circle cx="${across(at)}" cy="${up(value)}" r="2.4" fill="${line.colour}"/>`,
  )
  return [
    ...ticks,
    text(LEFT, top + 6, line.name, 9.5, line.colour, 'start', true),
    ...(course.length > 0
      ? [
          `<path d="M${through(band)}Z" fill="${line.colour}" fill-opacity="0.13"/>`,
          `<path d="M${through(course)}" fill="none" stroke="${line.colour}" stroke-width="1.6"/>`,
        ]
      : []),
    ...marks,
  ].join('')
}

/**
 * Courses over time under each other on one time axis, check-ins with whiskers: an SVG picture of 515 points width.
 * @param span the two instants compared, shaded
 * @param height of each panel, points
 */
export function takeHomeChart(
  lines: readonly ChartLine[],
  span: { from: number; to: number } | null,
  height = lines.length > 1 ? 106 : 170,
): string {
  const total = lines.length * (height + GAP) + 18
  const times = lines.flatMap(({ points, course }) => [...points, ...course].map(({ at }) => at))
  const [first, last] = [Math.min(...times), Math.max(...times)]
  const across = (at: number) =>
    LEFT + 6 + Math.min(1, Math.max(0, (at - first) / Math.max(1, last - first))) * (WIDTH - LEFT - 12)
  const shade = span
    ? `<rect x="${across(span.from)}" y="12" width="${Math.max(0, across(span.to) - across(span.from))}" height="${total - 30}" fill="#e8edf3"/>`
    : ''
  const panels = lines.map((line, i) => panel(line, i * (height + GAP), height, across))
  const axis: string[] = [
    `<line x1="${LEFT}" x2="${WIDTH}" y1="${total - 18}" y2="${total - 18}" stroke="${INK}" stroke-width="0.9"/>`,
  ]
  let free = 0
  for (let month = startOfMonth(first); +month <= last; month = addMonths(month, 1)) {
    const x = across(+month)
    if (x < LEFT) continue
    axis.push(`<line x1="${x}" x2="${x}" y1="${total - 18}" y2="${total - 14}" stroke="${FADED}" stroke-width="0.7"/>`)
    if (x < free || x > WIDTH - 30) continue
    free = x + 52
    axis.push(text(x, total - 4, format(month, 'MMM yyyy'), 8, FADED))
  }
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${total}" viewBox="0 0 ${WIDTH} ${total}">${shade}${panels.join('')}${axis.join('')}</svg>`
}
