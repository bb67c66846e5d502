import { exp, log } from './fast'
import { CELLS, FREEDOMS, NOISE_TYPES, noiseFrom, SCALES, VERY_LASTING, type Noise } from './noise'

/*
 * What a studio may be like: how its clients share the types of noise, a base scale, and how alike people are. A fixed grid,
 * a prior over it, and what a client of such a studio may be like.
 */

/** How much of a mix of types is spread evenly over all: no client's type is ever ruled out. */
const FLOOR = 0.15
/** Without lasting noise: white and slow. */
const WHITE_MIX = [0.65, 0.35]
const WHITE_PRIOR = 0.3
const EVEN_PRIOR = 0.15
/** Shares of a studio's clients whose noise lasts, in one of the lasting types. */
const LASTING_SHARES = [0.1, 0.25, 0.5, 1]
/** Of the log of the base scale. */
const SCALE_SD = 0.5
const FREEDOM_PRIOR = [0.2, 0.5, 0.3]

/** Mixes of types: the plain one, then lasting types by share, then an even one. */
function mixes(): { shares: Float64Array; prior: number }[] {
  const count = NOISE_TYPES.length
  const white = Array.from({ length: count }, (_, type) => WHITE_MIX[type] ?? 0)
  const own = (1 - WHITE_PRIOR - EVEN_PRIOR) / (count - WHITE_MIX.length) / LASTING_SHARES.length
  const all = [{ shares: white, prior: WHITE_PRIOR }]
  for (let type = WHITE_MIX.length; type < count; type += 1)
    for (const share of LASTING_SHARES)
      all.push({ shares: white.map((one, m) => (1 - share) * one + (m === type ? share : 0)), prior: own })
  all.push({ shares: white.map(() => 1 / count), prior: EVEN_PRIOR })
  return all.map(({ shares, prior }) => ({
    shares: Float64Array.from(shares, (one) => (1 - FLOOR) * one + FLOOR / count),
    prior,
  }))
}

/** Mixes of types a studio may have. */
export const MIXES = mixes()

/** A client's scale in a studio of a base scale, by type: places on the grid with their chances. */
export const CLIENT_SCALES: readonly (readonly (readonly { to: number; share: number }[])[])[] = NOISE_TYPES.map(
  ({ rho }) =>
    SCALES.map((_, base) => {
      const last = SCALES.length - 1
      if (rho === 0) return [{ to: base, share: 1 }]
      const up = (steps: number) => Math.min(last, base + steps)
      if (rho < VERY_LASTING)
        return [
          { to: up(0), share: 0.2 },
          { to: up(1), share: 0.4 },
          { to: up(2), share: 0.4 },
        ]
      // Slow noise of bounded variance is never learnt away: at least the assumed scale, 1.41 or 2 times it.
      const one = SCALES.indexOf(1)
      return [
        { to: up(0), share: 0.2 },
        { to: up(1), share: 0.2 },
        ...[one, one + 1, one + 2].map((least) => ({ to: Math.max(up(1), least), share: 0.2 })),
      ]
    }),
)

/** How many hypotheses about a studio there are: mixes by base scales by degrees of freedom. */
export const HYPOTHESES = MIXES.length * SCALES.length * FREEDOMS.length

const logPriors = ((): Float64Array => {
  const logs = SCALES.map((scale) => -0.5 * (Math.log(scale) / SCALE_SD) ** 2)
  const sum = Math.log(logs.reduce((total, one) => total + Math.exp(one), 0))
  return Float64Array.from({ length: HYPOTHESES }, (_, h) => {
    const freedom = h % FREEDOMS.length
    const scale = Math.floor(h / FREEDOMS.length) % SCALES.length
    const mix = Math.floor(h / (FREEDOMS.length * SCALES.length))
    return (
      Math.log(MIXES[mix]?.prior as number) + (logs[scale] as number) - sum + Math.log(FREEDOM_PRIOR[freedom] as number)
    )
  })
})()

/** Client scales as flat columns: cells of a type from a base scale, their chances, and where each base begins. */
const MOVES = CLIENT_SCALES.map((bases) => ({
  from: Uint8Array.from([0, ...bases.map((_, base) => bases.slice(0, base + 1).flat().length)]),
  to: Uint8Array.from(bases.flat(), ({ to }) => to),
  shares: Float64Array.from(bases.flat(), ({ share }) => share),
}))
const TYPES = NOISE_TYPES.length
const EACH = SCALES.length * FREEDOMS.length
const PLAIN_TYPES = WHITE_MIX.length
const [WHITE_SHARE = 0, SLOW_SHARE = 0] = WHITE_MIX
const byType = new Float64Array(TYPES)

/**
 * Log of what one client's evidence says for each hypothesis about the studio.
 * @param likelihoods of the client's history by cell of the grid, as factors of their largest
 */
export function supportOf(likelihoods: Float64Array): Float64Array {
  const found = new Float64Array(HYPOTHESES)
  const kinds = FREEDOMS.length
  for (let base = 0; base < SCALES.length; base += 1)
    for (let freedom = 0; freedom < kinds; freedom += 1) {
      let even = 0
      for (let type = 0; type < TYPES; type += 1) {
        const { from, to, shares } = MOVES[type] as (typeof MOVES)[number]
        const cells = type * EACH + freedom
        let sum = 0
        for (let k = from[base] as number; k < (from[base + 1] as number); k += 1)
          sum += (shares[k] as number) * (likelihoods[cells + (to[k] as number) * kinds] as number)
        byType[type] = sum
        even += sum
      }
      even /= TYPES
      const white = WHITE_SHARE * (byType[0] as number) + SLOW_SHARE * (byType[1] as number)
      const at = base * kinds + freedom
      const plain = FLOOR * even + 1e-280
      found[at] = log((1 - FLOOR) * white + plain)
      let place = EACH + at
      for (let type = PLAIN_TYPES; type < TYPES; type += 1)
        for (let k = 0; k < LASTING_SHARES.length; k += 1) {
          const share = LASTING_SHARES[k] as number
          found[place] = log((1 - FLOOR) * ((1 - share) * white + share * (byType[type] as number)) + plain)
          place += EACH
        }
      found[place] = log(even + 1e-280)
    }
  return found
}

/** Lighter hypotheses than this, against the likeliest, add nothing: a logarithm. */
const UNHEARD = 25

/**
 * What a client's noise is held for in a studio others speak about.
 * @param support log of what they say for each hypothesis, summed and tempered; null: nothing learnt
 */
export function noiseGiven(support: Float64Array | null, learntFrom: Noise['learntFrom']): Noise {
  const logs = support ? logPriors.map((prior, h) => prior + (support[h] as number)) : logPriors
  let top = -Infinity
  for (let h = 0; h < HYPOTHESES; h += 1) top = Math.max(top, logs[h] as number)
  const heard = (place: number) => {
    const off = (logs[place] as number) - top
    return off > -UNHEARD ? exp(off) : 0
  }
  const all = new Float64Array(CELLS)
  const kinds = FREEDOMS.length
  for (let at = 0; at < EACH; at += 1) {
    // Weight of the white mix, of each lasting type, and of all types alike.
    let white = heard(at)
    let place = EACH + at
    byType.fill(0)
    for (let type = PLAIN_TYPES; type < TYPES; type += 1)
      for (let k = 0; k < LASTING_SHARES.length; k += 1) {
        const weight = heard(place)
        const share = LASTING_SHARES[k] as number
        white += (1 - share) * weight
        byType[type] = (byType[type] as number) + share * weight
        place += EACH
      }
    const lasting = byType.reduce((sum, one) => sum + one, 0)
    const even = heard(place)
    const spread = (even + FLOOR * (white + lasting)) / TYPES
    byType[0] = WHITE_SHARE * white
    byType[1] = SLOW_SHARE * white
    const base = Math.floor(at / kinds)
    const freedom = at % kinds
    for (let type = 0; type < TYPES; type += 1) {
      const weight = (1 - FLOOR) * (byType[type] as number) + spread
      const { from, to, shares } = MOVES[type] as (typeof MOVES)[number]
      for (let k = from[base] as number; k < (from[base + 1] as number); k += 1) {
        const cell = type * EACH + (to[k] as number) * kinds + freedom
        all[cell] = (all[cell] as number) + weight * (shares[k] as number)
      }
    }
  }
  return noiseFrom(all, learntFrom)
}

/** Nothing learnt. */
export const ASSUMED_NOISE: Noise = noiseGiven(null, { clients: 0, visits: 0, followed: 0 })
