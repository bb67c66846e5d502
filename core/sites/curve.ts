/** A point of a drawing. */
export interface Point {
  x: number
  y: number
}

const TENSION = 6

function format(value: number): string {
  return value.toFixed(2)
}

/** A smooth curve through points (Catmull-Rom as cubic Bezier pieces), as an SVG path; closed or open. */
export function smoothCurve(points: readonly Point[], closed: boolean): string {
  const count = points.length
  const at = (i: number): Point => {
    const place = closed ? (i + count) % count : Math.min(count - 1, Math.max(0, i))
    return points[place] ?? { x: 0, y: 0 }
  }
  const first = at(0)
  const pieces = points.slice(0, closed ? count : -1).map((_, i) => {
    const [before, from, to, after] = [at(i - 1), at(i), at(i + 1), at(i + 2)]
    const c1 = { x: from.x + (to.x - before.x) / TENSION, y: from.y + (to.y - before.y) / TENSION }
    const c2 = { x: to.x - (after.x - from.x) / TENSION, y: to.y - (after.y - from.y) / TENSION }
    return `C${[c1.x, c1.y, c2.x, c2.y, to.x, to.y].map(format).join(' ')}`
  })
  return `M${format(first.x)} ${format(first.y)}${pieces.join('')}${closed ? 'Z' : ''}`
}
