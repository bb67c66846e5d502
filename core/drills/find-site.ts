import {
  FOLD_CLOSE_UPS,
  findMark,
  REGIONS,
  type FoldCloseUp,
  type Pair,
  type Region,
  type RegionId,
} from '../sites/close-ups'
import type { FoldSiteId } from '../sites/folds'
import type { Point } from '../sites/curve'
import type { Random } from '../simulate/random'

/** How a drawn body differs from the one in the reference. */
export interface DrawnBody {
  sex: 'female' | 'male'
  /** Lengths and widths, as shares of the usual. */
  length: number
  build: number
  /** Posture: how far it leans, as a share of its height. */
  lean: number
  /** Measured on the left. */
  mirrored: boolean
}

/** A body drawn by lot; the higher the level the farther from the usual. */
export function drawBody(random: Random, level: number): DrawnBody {
  const wide = 0.03 + 0.03 * level
  const about = () => 1 + wide * Math.max(-2, Math.min(2, random.normal()))
  return {
    sex: random.next() < 0.5 ? 'female' : 'male',
    length: about(),
    build: about(),
    lean: 0.02 * level * Math.max(-2, Math.min(2, random.normal())),
    mirrored: level > 2 && random.next() < 0.3,
  }
}

/** A close-up on a drawn body, mm: what is seen, landmarks with names, the mark. */
export interface DrawnSite {
  site: FoldSiteId
  region: Region
  landmarks: { id: string; name: string; kind: 'bone' | 'skin'; at: Point }[]
  mark: Point
  crest: number
}

/** Draws a site's region on a body. Landmarks move with it; what is measured from them in centimetres does not stretch. */
export function drawSite(site: FoldSiteId, body: DrawnBody): DrawnSite {
  const closeUp: FoldCloseUp = FOLD_CLOSE_UPS[site]
  const usual: Region = REGIONS[closeUp.region as RegionId]
  const middle = usual.width / 2
  const move = ([x, y]: Pair): Pair => {
    const across = middle + (x - middle) * body.build + body.lean * (y - usual.height / 2)
    return [body.mirrored ? usual.width - across : across, usual.height / 2 + (y - usual.height / 2) * body.length]
  }
  // A rule's own distances run to the client's right: on the other side they turn round.
  const unturned = ([x, y]: Pair): Point => {
    const [across, down] = move([x, y])
    return { x: body.mirrored ? usual.width - across : across, y: down }
  }
  const rule = body.sex === 'female' ? (closeUp.female ?? closeUp.mark) : closeUp.mark
  const mark = findMark(rule, (id) => unturned(closeUp.landmarks[id]?.at ?? [NaN, NaN]))
  return {
    site,
    region: {
      ...usual,
      shapes: usual.shapes.map((shape) => shape.map(move)),
      lines: usual.lines.map((line) => line.map(move)),
    },
    landmarks: Object.entries(closeUp.landmarks).map(([id, { name, kind, at }]) => {
      const [x, y] = move(at)
      return { id, name, kind, at: { x, y } }
    }),
    mark: { x: body.mirrored ? usual.width - mark.x : mark.x, y: mark.y },
    crest: (body.mirrored ? -1 : 1) * closeUp.crest,
  }
}

/** How far a pointed place lies from the mark, cm. */
export function missCm(mark: Point, pointed: Point): number {
  return Math.hypot(pointed.x - mark.x, pointed.y - mark.y) / 10
}

/** Fold moved by a centimetre's miss, as shares of the fold: from, to (after Hume & Marfell-Jones 2008, recalled: several mm). */
const MOVED_A_CM = [0.08, 0.2] as const
/** A usual fold to say it of, mm. */
const USUAL_FOLD_MM = 16

/**
 * What a miss can do to a usual fold of 16 mm, mm: between so much and so much. Recalled, not exact.
 * @example foldMoved(1) // { low: 1.28, high: 3.2 }
 */
export function foldMoved(miss: number): { low: number; high: number } {
  return { low: MOVED_A_CM[0] * miss * USUAL_FOLD_MM, high: MOVED_A_CM[1] * miss * USUAL_FOLD_MM }
}
