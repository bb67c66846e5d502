import { chiSquareDrawn, type Random } from '../simulate'

/** Student's t with some degrees of freedom: a normal deviate over the root of a chi-square by its freedom. */
export function student(random: Random, freedom: number): number {
  if (!Number.isFinite(freedom)) return random.normal()
  return random.normal() / Math.sqrt(chiSquareOf(random, freedom) / freedom)
}

/** A chi-square deviate; of an error hardly learnt (under two degrees of freedom) as of one with two. */
export const chiSquareOf = (random: Random, freedom: number): number => chiSquareDrawn(random, Math.max(2, freedom))
