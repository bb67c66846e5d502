import { ASSUMED_NOISE, NOISE_GRID, PRIOR_FREEDOM, type Evidence, type Noise } from './noise'

/*
 * What many clients' histories say about the noise of a figure together. Their own scales differ about a common one, each
 * an inverse chi-square, so that what is left over of a history is a multivariate t: one client who goes up and down in
 * ways no smooth course follows says little, where a mere sum of squares would hold everybody's noise for as wide.
 */

/** What is learnt adds at most so many degrees of freedom to the assumed scale, because people differ. */
const MOST_FREEDOM = 16
/**
 * And at most this many speak about the correlation. With 60 a studio whose noise does not last goes on being judged as if
 * it might, which costs a steady loss a check-in; with 200 and more those clients are told real too often whose own noise
 * lasts while their studio's does not (docs/decisions.md).
 */
const MOST_FOR_WEIGHTS = 175
/** People's own scales differ as an inverse chi-square of so many degrees of freedom about the common one. */
const PEOPLE_FREEDOM = 12
/** Up to so many histories one's own moves the common scale enough for it to be found anew without it. */
const FEW = 40
/** Days of visits up to which each is pooled by itself; in studios of more, what was known every four weeks is enough. */
const MANY_DAYS = 400
const WEEKS_AT_ONCE = 4
/** Turns after which a scale stands; a relative change below which it does before. */
const MOST_TURNS = 60
const STANDS = 1e-3

/** What one history says up to a time. */
interface Said {
  freedom: number
  squares: readonly number[]
  logs: readonly number[]
  visits: number
  ofStudy: boolean
}

/**
 * Histories pooled: by model the common scale, squares weighted by how alike people are, and the log likelihood but for the
 * degrees of freedom at that scale.
 */
interface Pooled {
  freedom: number
  clients: number
  visits: number
  scales: Float64Array
  squares: Float64Array
  logs: Float64Array
}

/** What a history says up to a week; null where that is nothing. */
function saidUntil({ weeks, steps, ofStudy }: Evidence, until: number): Said | null {
  let [count, high] = [0, weeks.length]
  while (count < high) {
    const middle = (count + high) >> 1
    if ((weeks[middle] as number) <= until) count = middle + 1
    else high = middle
  }
  const step = steps[count - 1]
  if (!step || step.freedom === 0) return null
  const { freedom, squares, logs } = step
  return { freedom, squares, logs, visits: count, ofStudy: ofStudy === true }
}

function saidBy(all: readonly Evidence[], until: number): Said[] {
  const found: Said[] = []
  for (const one of all) {
    const said = saidUntil(one, until)
    if (said) found.push(said)
  }
  return found
}

/** Weight of a history's squares, given the common scale: 1 where it is as wide as others, less where it is wider. */
function weightOf({ freedom, ofStudy }: Said, squares: number, scale: number): number {
  // People measured twice a day do not change between: a study is taken at its word.
  return ofStudy ? 1 : (PEOPLE_FREEDOM + freedom) / (PEOPLE_FREEDOM + squares / scale)
}

const scaleFrom = (squares: number, freedom: number) => (PRIOR_FREEDOM + squares) / (PRIOR_FREEDOM + freedom)

/** Adds a history at the common scales (or takes it off). */
function add(pooled: Pooled, one: Said, times = 1): void {
  const { freedom, ofStudy } = one
  pooled.freedom += times * freedom
  if (!ofStudy) {
    pooled.clients += times
    pooled.visits += times * one.visits
  }
  for (let m = 0; m < NOISE_GRID.length; m += 1) {
    const squares = one.squares[m] as number
    const scale = pooled.scales[m] as number
    pooled.squares[m] = (pooled.squares[m] as number) + times * weightOf(one, squares, scale) * squares
    const off = ofStudy
      ? squares / (2 * scale)
      : ((PEOPLE_FREEDOM + freedom) / 2) * Math.log(1 + squares / (PEOPLE_FREEDOM * scale))
    // The scale's own logarithm stands in the whole.
    const log = (one.logs[m] as number) - off
    pooled.logs[m] = (pooled.logs[m] as number) + times * log
  }
}

/** The likeliest common scale of each model (EM of a multivariate t, from the plain mean), and everything at it. */
function pool(all: readonly Said[]): Pooled {
  const freedom = all.reduce((sum, one) => sum + one.freedom, 0)
  const scales = Float64Array.from(NOISE_GRID, (_, m) => {
    let plain = 0
    for (const { squares } of all) plain += squares[m] as number
    let scale = scaleFrom(plain, freedom)
    for (let turn = 0; turn < MOST_TURNS; turn += 1) {
      let sum = 0
      for (const one of all) sum += weightOf(one, one.squares[m] as number, scale) * (one.squares[m] as number)
      const next = scaleFrom(sum, freedom)
      const moved = Math.abs(next - scale)
      scale = next
      if (moved < STANDS * scale) break
    }
    return scale
  })
  const none = () => new Float64Array(NOISE_GRID.length)
  const pooled = { freedom: 0, clients: 0, visits: 0, scales, squares: none(), logs: none() }
  for (const one of all) add(pooled, one)
  return pooled
}

function noiseFrom({ freedom, clients, visits, scales, squares, logs }: Pooled): Noise {
  if (!(freedom > 0)) return ASSUMED_NOISE
  const half = PRIOR_FREEDOM / 2
  const told = Math.min(1, MOST_FOR_WEIGHTS / freedom)
  const said = NOISE_GRID.map((_, m) => {
    const scale = scaleFrom(squares[m] as number, freedom)
    const log = (logs[m] as number) - (freedom / 2) * Math.log(scales[m] as number)
    return told * log - half * (Math.log(scale) + 1 / scale)
  })
  const top = Math.max(...said)
  const weights = said.map((one) => Math.exp(one - top))
  const total = weights.reduce((sum, one) => sum + one, 0)
  const kept = Math.min(1, MOST_FREEDOM / freedom)
  return {
    models: NOISE_GRID.map((model, m) => ({
      ...model,
      weight: (weights[m] as number) / total,
      a: half + (kept * freedom) / 2,
      b: half + (kept * (squares[m] as number)) / 2,
    })),
    learntFrom: { clients, visits, freedom },
  }
}

/**
 * The noise of a figure learnt from other clients' histories, up to a time.
 * @param others evidence of every client but the one judged
 * @param until weeks, on the same zero; without it everything counts
 */
export function learnNoise(others: readonly Evidence[], until = Infinity): Noise {
  return noiseFrom(pool(saidBy(others, until)))
}

/** Everybody's evidence about a figure, pooled once a day of visits: what others say is the whole less one's own. */
export class EvidencePool {
  private readonly pooled = new Map<number, Pooled>()
  private readonly isCoarse: boolean

  constructor(private readonly all: readonly Evidence[]) {
    this.isCoarse = new Set(all.flatMap(({ weeks }) => weeks)).size > MANY_DAYS
  }

  /** Everything up to a time. */
  private whole(until: number): Pooled {
    const known = this.pooled.get(until)
    if (known) return known
    const found = pool(saidBy(this.all, until))
    this.pooled.set(until, found)
    return found
  }

  /**
   * As `learnNoise` of all others; of many histories the common scale is that of all of them, one's own with them.
   * @param own those among them that are the client's own
   * @param more what speaks beside them, studies of the assessor
   */
  noiseWithout(own: readonly Evidence[], until = Infinity, more: readonly Evidence[] = []): Noise {
    if (this.all.length <= FEW) {
      const others = this.all.filter((one) => !own.includes(one))
      return learnNoise([...others, ...more], until)
    }
    const known = this.isCoarse ? WEEKS_AT_ONCE * Math.floor(until / WEEKS_AT_ONCE) : until
    const whole = this.whole(known)
    const rest = { ...whole, squares: whole.squares.slice(), logs: whole.logs.slice() }
    for (const one of saidBy(own, known)) add(rest, one, -1)
    for (const one of saidBy(more, until)) add(rest, one)
    return noiseFrom(rest)
  }
}
