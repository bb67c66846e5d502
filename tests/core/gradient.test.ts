import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { derivative } from 'mathjs'
import { EQUATIONS, isFor, type Equation, type InputId, type Measures, type Sex } from '../../core/equations'
import { gradientOf, percentVariance, simulatePercent, type InputVariances } from '../../core/error'
import { weightsOf, type FigureId } from '../../core/following'
import { dualOf, printed, scopeOf, someMeasures } from '../support/equations'

const pairs = EQUATIONS.flatMap((equation) =>
  (['female', 'male'] as Sex[])
    .filter((sex) => isFor(equation, sex))
    .map((sex) => [equation.id, sex, equation] as const),
)

/** How each symbol of a printed formula moves with one input. */
function movesWith(equation: Equation, input: InputId, measures: Measures): Record<string, number> {
  const metres = measures.height / 100
  return {
    [input.replaceAll('-', '_')]: 1,
    S: equation.summed.some((site) => site === input) ? 1 : 0,
    lb: input === 'weight' ? 1 / 0.45359237 : 0,
    BMI: input === 'weight' ? 1 / metres ** 2 : input === 'height' ? (-2 * measures.weight) / (metres ** 3 * 100) : 0,
  }
}

/** Derivative of percent fat by dual numbers over the printed formula, Siri for densities. */
function dualDerivative(equation: Equation, input: InputId, measures: Measures, sex: Sex): number {
  const moves = movesWith(equation, input, measures)
  const scope = scopeOf(equation, measures, sex)
  const duals = Object.fromEntries(
    Object.entries(scope).map(([name, value]) => [name, [value, moves[name] ?? 0] as const]),
  )
  const [value, slope] = dualOf(printed(equation), duals)
  return equation.gives === 'density' ? (-495 / value ** 2) * slope : slope
}

/** Derivatives by equation and symbol: taking one takes longer than evaluating it a hundred times. */
const derivatives = new Map<string, ReturnType<typeof derivative>>()
function derivativeOf(equation: Equation, name: string) {
  const key = `${equation.id} ${name}`
  const known = derivatives.get(key) ?? derivative(printed(equation), name)
  derivatives.set(key, known)
  return known
}

/** The same by mathjs's symbolic differentiation. */
function symbolicDerivative(equation: Equation, input: InputId, measures: Measures, sex: Sex): number {
  const moves = movesWith(equation, input, measures)
  const scope = scopeOf(equation, measures, sex)
  const node = printed(equation)
  let slope = 0
  for (const [name, move] of Object.entries(moves)) {
    if (move !== 0) slope += move * Number(derivativeOf(equation, name).evaluate(scope))
  }
  const value = Number(node.evaluate(scope))
  return equation.gives === 'density' ? (-495 / value ** 2) * slope : slope
}

describe('the gradient of every equation', () => {
  it.each(pairs)('%s, %s: numeric, dual and symbolic derivatives agree', (_, sex, equation) => {
    const scale = fc.double({ min: 0.8, max: 1.2, noNaN: true })
    fc.assert(
      fc.property(fc.array(scale, { minLength: 10, maxLength: 10 }), (shares) => {
        const measures = someMeasures()
        equation.inputs.forEach((input, i) => {
          if (input !== 'age') measures[input] *= shares[i] ?? 1
        })
        const gradient = gradientOf(equation, measures, { person: { sex }, conversion: 'siri' })
        if (!gradient) return
        for (const input of equation.inputs.filter((one) => one !== 'age')) {
          const dual = dualDerivative(equation, input, measures, sex)
          expect(gradient[input]).toBeCloseTo(dual, 5)
          expect(symbolicDerivative(equation, input, measures, sex)).toBeCloseTo(dual, 8)
        }
      }),
      { numRuns: 8 },
    )
  })

  it('gives none where the estimate is refused', () => {
    const equation = EQUATIONS.find(({ id }) => id === 'navy-tape-men')
    const settings = { person: { sex: 'male' as const }, conversion: 'siri' }
    expect(equation && gradientOf(equation, someMeasures({ neck: 90 }), settings)).toBeNull()
  })
})

describe('propagation against simulation', () => {
  it.each(pairs)('%s, %s: the spread of 40,000 simulated visits is what the gradient says', (_, sex, equation) => {
    const measures = someMeasures()
    const settings = { person: { sex }, conversion: 'siri' }
    const variances: InputVariances = {}
    for (const input of equation.inputs) if (input !== 'age') variances[input] = (0.01 * measures[input]) ** 2
    const gradient = gradientOf(equation, measures, settings)
    if (!gradient) throw new Error('refused')
    const simulated = simulatePercent(equation, measures, variances, settings, { draws: 40_000, seed: 5 })
    const expected = Math.sqrt(percentVariance(gradient, variances))
    // Standard error of a spread from 40,000 draws: 1 / sqrt(80,000) = 0.35 %; 2 % leaves room for curvature.
    expect(simulated.standardDeviation / expected).toBeGreaterThan(0.98)
    expect(simulated.standardDeviation / expected).toBeLessThan(1.02)
    expect(simulated.interval.high - simulated.interval.low).toBeCloseTo(2 * 1.96 * simulated.standardDeviation, 0)
    expect(simulated.answered).toBe(40_000)
  })

  it('draws the same for the same seed', () => {
    const equation = EQUATIONS[0]
    if (!equation) throw new Error('no equation')
    const run = (seed: number) =>
      simulatePercent(
        equation,
        someMeasures(),
        { chest: 1 },
        { person: { sex: 'male' }, conversion: 'siri' },
        { draws: 500, seed },
      )
    expect(run(3)).toEqual(run(3))
    expect(run(3)).not.toEqual(run(4))
  })

  it('splits weight error between fat and lean', () => {
    const terms = { means: {}, weightKg: 80, percent: 20, gradient: { chest: 1 }, bend: 0, percentOf: new Set<never>() }
    const of = (figure: FigureId) => weightsOf(figure, terms, [])
    // By hand: 80 kg at 20 %. A kilogram more is 0.2 of fat and 0.8 of lean; a point of percent is 0.8 kg from lean to fat.
    for (const [figure, byWeight, byFold] of [
      ['fat', 0.2, 0.8],
      ['lean', 0.8, -0.8],
      ['lean-less-fat', 0.6, -1.6],
      ['percent', 0, 1],
    ] as const) {
      expect(of(figure)?.weight, figure).toBeCloseTo(byWeight, 12)
      expect(of(figure)?.sites.chest, figure).toBeCloseTo(byFold, 12)
    }
  })
})
