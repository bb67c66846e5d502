/*
 * Every start a change is looked for from has a share of one budget, so that all of them together keep the promise: a
 * start's odds count as much as its share. Together the shares are one.
 */

/** Of the start followed from the beginning. */
const FIRST_SHARE = 0.85
/** Of all starts chosen beforehand later on; each has less than the one before it. */
const LATER_SHARE = 0.1
/** Of all starts found by searching. */
const SEARCHED_SHARE = 0.05

/** Shares of 1, 2, 3, ... that add up to one. */
const falling = (place: number) => 1 / (place * (place + 1))

/**
 * Share of a start that was chosen before its first reading.
 * @param place among the starts chosen so far: 1 the first
 */
export function chosenShare(place: number): number {
  return place === 1 ? FIRST_SHARE : LATER_SHARE * falling(place - 1)
}

/**
 * Share of a start that was found by looking back, or pinned after the fact.
 * @param place among the check-ins: 1 the first
 */
export function searchedShare(place: number): number {
  return SEARCHED_SHARE * falling(place)
}
