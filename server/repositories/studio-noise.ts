import type { Day } from '../../core/calendar'
import {
  learnParts,
  NO_EVIDENCE,
  NO_PARTS,
  poolParts,
  StudioNoise,
  type LearntParts,
  type Noise,
  type PartsEvidence,
  type PooledParts,
} from '../../core/following'
import type { NoiseUntil } from '../../shared/schemas/following'
import type { Queryable } from '../db/database'
import { usePorts } from '../ports'
import { followed, listed, refresh } from './followed-clients'
import { lineOf } from './line-of'
import { noisesUntil } from './noise-times'
import type { InStudio } from './staff'
import { findStudied } from './study-facts'

/** The noise a studio is judged by stands this long: a line is not judged anew because somebody else was measured. */
const KEEP_MS = 10 * 60 * 1000
/** Learning answers other requests after this long. */
const PAUSE_AFTER_MS = 12

interface KeptNoise {
  at: number
  /** What it was learnt from: the newest change of each client, and the studies. */
  from: string
  noise: StudioNoise
  /** Of the sum, by everybody: what assessors' clients are compared with together. */
  overall: Noise
  /** What each client says about where error comes from, and all together. */
  parts: ReadonlyMap<string, PartsEvidence>
  pool: PooledParts
}

const NOISE_SHELF = 'noise'
/** Studios whose noise is being learnt. */
const underWay = new Map<string, Promise<KeptNoise> | null>()

/** Runs work step by step and lets other requests be answered in between. */
async function inSteps(steps: Iterator<unknown>): Promise<void> {
  let since = performance.now()
  while (!steps.next().done) {
    if (performance.now() - since < PAUSE_AFTER_MS) continue
    await new Promise((go) => setImmediate(go))
    since = performance.now()
  }
}

/** Learns what a studio's check-ins teach, of clients who are there and of those who have gone, and judges its lines by it. */
async function learn(db: Queryable, who: InStudio, now: number): Promise<KeptNoise> {
  const { shelf } = usePorts()
  // Error is learnt from everybody's clients, also where a coach sees only their own.
  const studio = { studioId: who.studioId }
  const everybody = [...(await listed(db, studio, false)), ...(await listed(db, studio, true))]
  await refresh(db, studio, everybody)
  const { evidence } = await findStudied(db, who.studioId)
  const from = JSON.stringify([everybody.map(({ id, touchedAt }) => [id, touchedAt]), evidence.length])
  const known = shelf.get<KeptNoise>(NOISE_SHELF, who.studioId)
  if (known?.from === from) {
    shelf.put(NOISE_SHELF, who.studioId, { ...known, at: now })
    return known
  }
  const noise = new StudioNoise(
    new Map(everybody.map(({ id }) => [id, followed(id)?.evidence ?? NO_EVIDENCE])),
    evidence,
  )
  await inSteps(noise.learning())
  await inSteps(judging(everybody, noise))
  const parts = new Map(everybody.map(({ id }) => [id, followed(id)?.parts ?? NO_PARTS]))
  const kept: KeptNoise = {
    at: now,
    from,
    noise,
    overall: noise.for('', undefined, ['sum']).sum,
    parts,
    pool: poolParts(parts.values()),
  }
  shelf.put(NOISE_SHELF, who.studioId, kept)
  return kept
}

/** Judges every line by a noise before it is in use. */
function* judging(people: readonly { id: string }[], noise: StudioNoise): Generator<void, void> {
  for (const { id } of people) {
    const own = followed(id)
    if (!own) continue
    lineOf(id, own, noise)
    yield
  }
}

/** What a studio's check-ins teach. Asked for the first time it is waited for; later what is known serves while it is renewed. */
async function keptNoise(db: Queryable, who: InStudio, now = Date.now()): Promise<KeptNoise> {
  const known = usePorts().shelf.get<KeptNoise>(NOISE_SHELF, who.studioId)
  if (known && now - known.at < KEEP_MS) return known
  const running = underWay.get(who.studioId) ?? learn(db, who, now).finally(() => underWay.set(who.studioId, null))
  underWay.set(who.studioId, running)
  if (!known) return running
  // A failure to renew is met again, and said, when it is asked for next.
  running.catch(() => undefined)
  return known
}

/** The noise of sums as everybody of a studio teaches it. */
export async function overallNoise(db: Queryable, who: InStudio): Promise<Noise> {
  return (await keptNoise(db, who)).overall
}

/** The noise of a studio, learnt. */
export async function studioNoise(db: Queryable, who: InStudio): Promise<StudioNoise> {
  return (await keptNoise(db, who)).noise
}

/** Noises for a client's page. */
export async function noisesFor(
  db: Queryable,
  who: InStudio,
  clientId: string,
  days: readonly Day[],
): Promise<NoiseUntil[]> {
  const noise = await studioNoise(db, who)
  const own = followed(clientId)
  // What is kept of a client is of their facts as they were: days that differ are answered anew.
  const isKept = own !== undefined && own.days.join() === days.join()
  if (isKept && own.told?.noise === noise) return own.told.noises
  const noises = noisesUntil(noise, clientId, days)
  if (isKept) own.told = { noise, noises }
  return noises
}

/** Parts of the error as all other clients of the studio teach them; null: too few yet. */
export async function partsFor(db: Queryable, who: InStudio, clientId: string): Promise<LearntParts | null> {
  const { parts, pool } = await keptNoise(db, who)
  return learnParts(pool, parts.get(clientId))
}
