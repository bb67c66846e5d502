import { describe, expect, it } from 'vitest'
import { FOLDS, GIRTHS, SITES, type SiteId } from '../../core/sites'
import { CLOSE_UPS, FOLD_CLOSE_UPS, markAt, REGIONS, type RegionId } from '../../core/sites/close-ups'
import { smoothCurve, type Point } from '../../core/sites/curve'

/** Whether a point lies within one of a region's shapes (their corners joined straight). */
function within({ x, y }: Point, region: RegionId): boolean {
  return REGIONS[region].shapes.some((shape) => {
    let inside = false
    shape.forEach(([ax, ay], i) => {
      const [bx, by] = shape[(i + 1) % shape.length] ?? [0, 0]
      if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside
    })
    return inside
  })
}

const place = (site: keyof typeof FOLD_CLOSE_UPS, landmark: string): Point => {
  const [x = NaN, y = NaN] = FOLD_CLOSE_UPS[site].landmarks[landmark]?.at ?? []
  return { x, y }
}
const apart = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y)

describe('close-ups', () => {
  it('are there for every site, each of the kind it is', () => {
    expect(Object.keys(CLOSE_UPS).sort()).toEqual(Object.keys(SITES).sort())
    for (const site of Object.keys(FOLDS)) expect(CLOSE_UPS[site as SiteId].kind).toBe('fold')
    for (const site of Object.keys(GIRTHS)) expect(CLOSE_UPS[site as SiteId].kind).toBe('girth')
  })

  it('draw on regions that are there, with landmarks inside the picture', () => {
    for (const [site, { region, landmarks }] of Object.entries(CLOSE_UPS)) {
      const drawn = REGIONS[region as RegionId]
      expect(drawn, site).toBeDefined()
      for (const { at } of Object.values(landmarks)) {
        expect(at[0], site).toBeGreaterThanOrEqual(0)
        expect(at[0], site).toBeLessThanOrEqual(drawn.width)
        expect(at[1], site).toBeGreaterThanOrEqual(0)
        expect(at[1], site).toBeLessThanOrEqual(drawn.height)
      }
    }
  })

  it.each(Object.keys(FOLD_CLOSE_UPS) as (keyof typeof FOLD_CLOSE_UPS)[])('put the mark of %s on the skin', (site) => {
    for (const sex of ['male', 'female'] as const)
      expect(within(markAt(FOLD_CLOSE_UPS[site], sex), FOLD_CLOSE_UPS[site].region as RegionId)).toBe(true)
  })

  it('put marks where the manuals have them: to the millimetre', () => {
    // Half way from shoulder tip to elbow tip.
    const triceps = markAt(FOLD_CLOSE_UPS.triceps)
    expect(apart(triceps, place('triceps', 'shoulder'))).toBeCloseTo(apart(triceps, place('triceps', 'elbow')), 6)
    // The biceps at the same level, the laboratory's a centimetre above: all are drawn on the same arm.
    expect(markAt(FOLD_CLOSE_UPS['biceps-kin']).y).toBeCloseTo(triceps.y, 6)
    expect(markAt(FOLD_CLOSE_UPS.biceps).y).toBeCloseTo(triceps.y - 10, 6)
    // The head of the radius lies below the tip of the bent elbow: half way to it is a little lower.
    expect(markAt(FOLD_CLOSE_UPS['triceps-kin']).y).toBeGreaterThan(triceps.y)
    // 2 cm along 45 degrees from the corner of the shoulder blade, outwards.
    const subscapular = markAt(FOLD_CLOSE_UPS.subscapular)
    expect(apart(subscapular, place('subscapular', 'corner'))).toBeCloseTo(20, 6)
    expect(subscapular.x - place('subscapular', 'corner').x).toBeCloseTo(
      subscapular.y - place('subscapular', 'corner').y,
      6,
    )
    // 2 and 5 cm to the client's right of the navel, level with it.
    for (const [site, mm] of [
      ['abdominal', 20],
      ['abdominal-5cm', 50],
    ] as const) {
      const mark = markAt(FOLD_CLOSE_UPS[site])
      expect(place(site, 'navel').x - mark.x).toBe(mm)
      expect(mark.y).toBe(place(site, 'navel').y)
    }
    // Half way for men, a third from the armpit for women.
    const [armpit, nipple] = [place('chest', 'armpit'), place('chest', 'nipple')]
    expect(apart(markAt(FOLD_CLOSE_UPS.chest), armpit)).toBeCloseTo(apart(armpit, nipple) / 2, 6)
    expect(apart(markAt(FOLD_CLOSE_UPS.chest, 'female'), armpit)).toBeCloseTo(apart(armpit, nipple) / 3, 6)
    // Straight down from the armpit, level with the breastbone's end.
    expect(markAt(FOLD_CLOSE_UPS.midaxillary)).toEqual({
      x: place('midaxillary', 'armpit').x,
      y: place('midaxillary', 'breastbone').y,
    })
    expect(markAt(FOLD_CLOSE_UPS['midaxillary-horizontal'])).toEqual(markAt(FOLD_CLOSE_UPS.midaxillary))
    // On the line from hip spine to armpit, at the level of the crest.
    const spinale = markAt(FOLD_CLOSE_UPS.supraspinale)
    const [spine, front] = [place('supraspinale', 'spine'), place('supraspinale', 'armpit')]
    expect(spinale.y).toBe(place('supraspinale', 'crest').y)
    expect((spinale.x - spine.x) * (front.y - spine.y)).toBeCloseTo((spinale.y - spine.y) * (front.x - spine.x), 6)
    // Half way from groin crease to kneecap, standing and seated.
    for (const site of ['thigh', 'front-thigh'] as const) {
      const mark = markAt(FOLD_CLOSE_UPS[site])
      expect(apart(mark, place(site, 'groin'))).toBeCloseTo(apart(mark, place(site, 'kneecap')), 6)
    }
    // Above the crest, by no more than a finger.
    for (const site of ['suprailiac', 'iliac-crest'] as const) {
      const above = place(site, 'crest').y - markAt(FOLD_CLOSE_UPS[site]).y
      expect(above).toBeGreaterThan(0)
      expect(above).toBeLessThanOrEqual(15)
    }
  })

  it('run folds the way their definitions say', () => {
    const wanted = {
      vertical: [0],
      horizontal: [90],
      'along-limb': [0, 93],
      'down-and-in': [105, 122, 130],
      'down-and-out': [135],
    }
    for (const [site, { crest }] of Object.entries(FOLD_CLOSE_UPS))
      expect(wanted[FOLDS[site as keyof typeof FOLDS].direction], site).toContain(crest)
  })
})

describe('a smooth curve', () => {
  it('goes through its points, open or closed', () => {
    const points = [{ x: 0, y: 0 }, { x: 10, y: 4 }, { x: 20, y: 0 }] // prettier-ignore
    const open = smoothCurve(points, false)
    for (const { x, y } of points) expect(open).toContain(`${x.toFixed(2)} ${y.toFixed(2)}`)
    expect(open.endsWith('20.00 0.00')).toBe(true)
    expect(smoothCurve(points, true).endsWith('0.00 0.00Z')).toBe(true)
  })
})
