/*
 * Logarithm and exponential by table, to 13 digits, in a third of the time of the language's own: likelihoods over the grid
 * are little else, and a studio's ask for some hundred million of each.
 */

const number = new Float64Array(1)
const words = new Int32Array(number.buffer)
/** Which of the two words holds the exponent. */
const HIGH = ((): 0 | 1 => {
  number[0] = 1
  return words[1] === 0x3ff00000 ? 1 : 0
})()
const LOW = HIGH === 1 ? 0 : 1

const STEPS = 512
const LOGS = Float64Array.from({ length: STEPS }, (_, k) => Math.log(1 + (k + 0.5) / STEPS))
const INVERSES = Float64Array.from({ length: STEPS }, (_, k) => 1 / (1 + (k + 0.5) / STEPS))
const [HIGH_UNIT, LOW_UNIT] = [2 ** -20, 2 ** -52]

/** Natural logarithm of a normal positive double. */
export function log(value: number): number {
  number[0] = value
  const high = words[HIGH] as number
  const place = (high >> 11) & (STEPS - 1)
  const mantissa = 1 + (high & 0xfffff) * HIGH_UNIT + ((words[LOW] as number) >>> 0) * LOW_UNIT
  const rest = mantissa * (INVERSES[place] as number) - 1
  const beside = rest * (1 - rest * (0.5 - rest * (1 / 3 - rest * 0.25)))
  return ((high >> 20) - 1023) * Math.LN2 + (LOGS[place] as number) + beside
}

const POWERS = Float64Array.from({ length: STEPS }, (_, k) => 2 ** (k / STEPS))
const LEAST = -1050
const TWOS = Float64Array.from({ length: 2073 }, (_, k) => 2 ** (k + LEAST))
const PER_STEP = STEPS / Math.LN2
const STEP = Math.LN2 / STEPS

/** Exponential of a number up to 700; beneath -700 it is 0. */
export function exp(value: number): number {
  if (value < -700) return 0
  const steps = Math.floor(value * PER_STEP + 0.5)
  const rest = value - steps * STEP
  const near = 1 + rest * (1 + rest * (0.5 + rest * (1 / 6)))
  return (TWOS[(steps >> 9) - LEAST] as number) * (POWERS[steps & (STEPS - 1)] as number) * near
}
