import { describe, expect, it } from 'vitest'
import { chosenShare, followLooks, saidUnasked, StudioNoise, clientEvidence, type Noises } from '../../core/following'
import { NO_DAY, LOSE_THEN_HOLD } from '../../core/trials/worlds'
import { measure, openTrial } from '../../core/trials/trial'

const share = chosenShare(1)
const settings = (noises: Noises) => ({ start: 0, share, noises })

describe('what is said unasked', () => {
  // Twelve others who do not change teach the studio; four lose for four months and hold for a year, one goes on losing.
  const ends = measure({
    world: NO_DAY,
    clients: 17,
    looks: 20,
    weeksApart: 4,
    seed: 3,
    client: (place) =>
      place < 4
        ? { course: (week) => 1 - 0.016 * Math.min(week, 16) }
        : place === 4
          ? { course: (week) => 1 - 0.006 * week }
          : {},
  })
  const studio = new StudioNoise(new Map(ends.map((own, c) => [String(c), clientEvidence(own)])))
  const said = (client: number) => saidUnasked(ends[client] ?? [], settings(studio.for(String(client))))

  it('is three lines: since the start, twelve weeks and last time, each with its figures', () => {
    const { lines } = said(4)
    expect(lines.map(({ since, place }) => [since, place])).toEqual([
      ['start', 0],
      ['twelve-weeks', 16],
      ['last-time', 18],
    ])
    expect(lines[0]?.changes.sum).toMatchObject({ verdict: 'real' })
    expect(lines[0]?.changes.sum?.change).toBeLessThan(0)
    // A start that nobody chose beforehand has to show more.
    expect(lines[2]?.changes.sum?.needed).toBeGreaterThan(100 * (lines[0]?.changes.sum?.needed ?? NaN))
  })

  it('says since when a client who lost has been steady, and of one who goes on losing nothing of the kind', () => {
    const places = [0, 1, 2, 3].flatMap((client) => {
      const { steadySince, lines } = said(client)
      expect(lines[0]?.changes.sum?.verdict).toBe('real')
      const days = ends[client]?.map(({ facts }) => facts.startedAt.slice(0, 10)) ?? []
      return steadySince ? [days.indexOf(steadySince)] : []
    })
    // It takes some readings that lie close: not all have them by now.
    expect(places.length).toBeGreaterThanOrEqual(1)
    // The loss ended at the fifth check-in.
    for (const place of places) {
      expect(place).toBeGreaterThanOrEqual(3)
      expect(place).toBeLessThanOrEqual(9)
    }
    expect(said(4).steadySince).toBeNull()
  })

  it('has nothing to say of one check-in', () => {
    expect(saidUnasked((ends[0] ?? []).slice(0, 1), settings(studio.for('0')))).toEqual({
      lines: [],
      steadySince: null,
    })
    expect(said(0).lines).toHaveLength(3)
    expect(saidUnasked((ends[0] ?? []).slice(0, 2), settings(studio.for('0'))).lines.map(({ since }) => since)).toEqual(
      ['start'],
    )
  })
})

describe('looks one after another', () => {
  it('say the same as one look that works out the others', () => {
    const { ends, noisesAt } = openTrial({ ...LOSE_THEN_HOLD, world: NO_DAY, clients: 12, looks: 20 }, ['sum'])
    const own = ends[0] ?? []
    const looks = followLooks(own, ['sum'], { noisesAt: (place) => noisesAt(0, place) })
    expect(looks.at(-1)?.sum?.verdict).toBe('real')
    const days = own.map(({ facts }) => facts.startedAt.slice(0, 10))
    const noisesOn = (day: string) => noisesAt(0, days.indexOf(day))
    const last = own.length - 1
    const { lines } = saidUnasked(own, { ...settings(noisesAt(0, last)), noisesOn })
    const at = lines[0]?.changes.sum
    expect(at?.verdict).toBe('real')
    const first = looks.findIndex(({ sum }) => sum?.verdict === 'real') + 1
    // The terms of the newest check-in differ a little from those of each look.
    expect(Math.abs(days.indexOf(at?.realOn ?? '') - first)).toBeLessThanOrEqual(1)
  })
})
