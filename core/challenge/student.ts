import type { Random } from '../simulate'

/** Student's t with some degrees of freedom: a normal deviate over the root of a chi-square by its freedom. */
export function student({ normal, next }: Random, freedom: number): number {
  if (!Number.isFinite(freedom)) return normal()
  return normal() / Math.sqrt(chiSquare(normal, next, freedom) / freedom)
}

/** A chi-square deviate (Marsaglia and Tsang 2000, gamma by squeeze; recalled). */
export function chiSquare(normal: () => number, next: () => number, freedom: number): number {
  const d = Math.max(freedom / 2, 1) - 1 / 3
  const c = 1 / Math.sqrt(9 * d)
  for (;;) {
    const x = normal()
    const v = (1 + c * x) ** 3
    if (v > 0 && Math.log(Math.max(next(), Number.MIN_VALUE)) < 0.5 * x * x + d * (1 - v + Math.log(v)))
      return 2 * d * v
  }
}
