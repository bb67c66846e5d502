import type { Random } from './random'

/** A chi-square deviate with one degree of freedom, or two and more. */
export function chiSquareDrawn({ normal, next }: Random, freedom: number): number {
  // Marsaglia and Tsang 2000 from two degrees of freedom on; one is a normal squared.
  if (freedom < 2) return normal() ** 2
  const d = freedom / 2 - 1 / 3
  const c = 1 / Math.sqrt(9 * d)
  for (;;) {
    const x = normal()
    const v = (1 + c * x) ** 3
    if (v > 0 && Math.log(Math.max(next(), Number.MIN_VALUE)) < 0.5 * x * x + d * (1 - v + Math.log(v)))
      return 2 * d * v
  }
}
