/**
 * A number rounded as people and spreadsheets round it: half away from zero, by its decimal digits. A value such as 1.005 is
 * stored a hair below itself; fifteen digits are what was meant.
 * @example roundHalfAway(171.45, 1) // 171.5
 */
export function roundHalfAway(value: number, decimals = 0): number {
  if (!Number.isFinite(value)) return value
  const scale = 10 ** decimals
  return (Math.sign(value) * Math.round(Number((Math.abs(value) * scale).toPrecision(15)))) / scale
}

/** The same as text with all its decimals. @example fixed(171.45, 1) // '171.5' */
export function fixed(value: number, decimals = 0): string {
  return roundHalfAway(value, decimals).toFixed(decimals)
}
