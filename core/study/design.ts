import { powerOfPairs, chiSquareAt } from './quantiles'

/**
 * Orders in which pens take their turns, one a person, repeating: each pen stands in every place equally often, and (for
 * an even number) follows every other equally often (Williams 1949, recalled). An odd number takes the square and its
 * mirror image.
 * @returns rows of indexes of pens
 * @example latinSquare(2) // [[0, 1], [1, 0]]
 */
export function latinSquare(pens: number): number[][] {
  if (pens < 1) return []
  const first = Array.from({ length: pens }, (_, i) => (i % 2 === 0 ? i / 2 : pens - (i + 1) / 2))
  const square = Array.from({ length: pens }, (_, row) => first.map((pen) => (pen + row) % pens))
  return pens % 2 === 0 || pens === 1 ? square : [...square, ...square.map((row) => [...row].reverse())]
}

/** The order of pens for the person in this place of a study. */
export function orderFor(place: number, pens: number): number[] {
  const square = latinSquare(pens)
  return square[place % Math.max(1, square.length)] ?? []
}

/** Most people anything here is worked out for. */
const MOST_PEOPLE = 500

/**
 * People needed until a bias of a share is seen in four of five studies (paired t test at 5 %).
 * @param share the bias, 0.05 is 5 %
 * @param spread standard deviation of one person's difference between the two, as a share
 * @returns null beyond 500
 * @example peopleForBias(0.05, 0.1) // 34
 */
export function peopleForBias(share: number, spread: number): number | null {
  if (!(share > 0) || !(spread > 0)) return null
  for (let people = 3; people <= MOST_PEOPLE; people += 1)
    if (powerOfPairs(share / spread, people) >= 0.8) return people
  return null
}

/**
 * Spread of one person's difference between two pens, as a share, from each one's error of a visit's value.
 * @param readings readings a site in each turn
 */
export function spreadOfDifference(readingShare: number, markShare: number, readings: number): number {
  return Math.sqrt(2 * (markShare ** 2 + readingShare ** 2 / Math.max(1, readings)))
}

/**
 * Pairs needed until a technical error is known to a share of itself: the upper end of its 95 % interval lies no farther
 * above it than that.
 * @example pairsForTem(0.25) // 48
 */
export function pairsForTem(share: number): number {
  for (let pairs = 2; pairs <= MOST_PEOPLE; pairs += 1)
    if (Math.sqrt(pairs / chiSquareAt(0.025, pairs)) <= 1 + share) return pairs
  return MOST_PEOPLE
}
