import { describe, expect, it } from 'vitest'
import { ASSUMED_NOISE, driftOf, driftSaid, moveOf, type Move } from '../../core/following'
import { openTrial, type Trial } from '../../core/trials/trial'
import { COMMON_DRIFT, HALF_CHANGES } from '../../core/trials/worlds'

/** What is said of a simulated studio whose clients are all measured by one assessor. */
function saidOf(trial: Trial, steady = false) {
  const { ends, noisesAt } = openTrial(trial, ['sum'])
  const moves = ends.flatMap((own) => {
    const named = own.map((end) => ({ ...end, facts: { ...end.facts, assessorId: 'runa' } }))
    return moveOf(named) ?? []
  })
  expect(moves).toHaveLength(trial.clients ?? 100)
  return driftOf(moves, steady ? ASSUMED_NOISE : noisesAt(0, (trial.looks ?? 12) - 1).sum)
}

describe('clients of one assessor moving together', () => {
  it('is said where the hand drifts, by what it drifted', () => {
    const drift = saidOf({ ...COMMON_DRIFT, clients: 12, looks: 12, weeksApart: 1 })
    // 1 % of the folds a week over eleven weeks.
    expect(drift).toMatchObject({ way: 'up', clients: 12 })
    expect(drift?.low).toBeLessThan(0.11)
    expect(drift?.high).toBeGreaterThan(0.1)
  })

  it('is said of hardly any studio whose clients do not change: one look each, 30 studios', () => {
    const said = Array.from({ length: 30 }, (_, i) =>
      saidOf({ clients: 8, looks: 4, weeksApart: 3, seed: 500 + i }, true),
    )
    expect(said.filter((drift) => drift !== null).length).toBeLessThanOrEqual(1)
  })

  it('is not said where half of the clients really change: they differ from each other', () => {
    const said = Array.from({ length: 5 }, (_, i) => saidOf({ ...HALF_CHANGES, clients: 12, looks: 12, seed: 900 + i }))
    expect(said.filter((drift) => drift !== null).length).toBeLessThanOrEqual(1)
  })

  const move = (share: number): Move => ({
    assessorId: 'runa',
    from: '2026-01-05',
    until: '2026-06-01',
    share,
    visitVariance: 0.0016,
  })

  it('needs five clients, and says what it rests on and what settles it', () => {
    const shares = [-0.1, -0.12, -0.09, -0.11, -0.13]
    expect(driftOf(shares.slice(1).map(move), ASSUMED_NOISE)).toBeNull()
    const drift = driftOf(shares.map(move), ASSUMED_NOISE)
    if (!drift) throw new Error('no drift')
    expect(drift).toMatchObject({ clients: 5, together: 5, way: 'down', since: '2026-01-05' })
    expect(driftSaid(drift, 'Runa Oakes')).toContain('5 of 5 clients measured by Runa Oakes moved down together')
    expect(driftSaid(drift, 'Runa Oakes')).toContain('only a steady person measured again tells')
  })

  it('leaves a client out who was measured by somebody else in between, and one measured once', () => {
    const [own = []] = openTrial({ clients: 1, looks: 3 }, ['sum']).ends
    const by = (...ids: string[]) =>
      own.map((end, i) => ({ ...end, facts: { ...end.facts, assessorId: ids[i] ?? '' } }))
    expect(moveOf(by('ivo', 'ivo', 'runa'))).toBeNull()
    const found = moveOf(by('runa', 'ivo', 'runa'))
    expect(found?.assessorId).toBe('runa')
    expect(moveOf([])).toBeNull()
  })
})
