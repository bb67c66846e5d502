import { all, create, type MathNode } from 'mathjs'
import type { Equation, Measures, Sex } from '../../core/equations'
import { asSite, isFold, SITES, type SiteId } from '../../core/sites'

const math = create(all ?? {})

/** c and m of Durnin & Womersley's table, written down here a second time: by sex, from the age in the first column. */
const TABLE: Record<Sex, [number, number, number][]> = {
  male: [
    [50, 1.1715, 0.0779],
    [40, 1.162, 0.07],
    [30, 1.1422, 0.0544],
    [20, 1.1631, 0.0632],
    [0, 1.162, 0.063],
  ],
  female: [
    [50, 1.1339, 0.0645],
    [40, 1.1333, 0.0612],
    [30, 1.1423, 0.0632],
    [20, 1.1599, 0.0717],
    [0, 1.1549, 0.0678],
  ],
}

/** Symbols of a printed formula with their values for a person. */
export function scopeOf(equation: Equation, measures: Measures, sex: Sex, black = false): Record<string, number> {
  const [, c = NaN, m = NaN] = TABLE[sex].find(([from]) => measures.age >= from) ?? []
  const sites = Object.fromEntries(Object.entries(measures).map(([name, value]) => [name.replaceAll('-', '_'), value]))
  return {
    ...sites,
    S: equation.summed.reduce((sum, site) => sum + measures[site], 0),
    lb: measures.weight / 0.45359237,
    BMI: measures.weight / (measures.height / 100) ** 2,
    s: sex === 'female' ? 1 : 0,
    b: black ? 1 : 0,
    c,
    m,
  }
}

/** The printed formula as mathjs reads it. */
export function printed(equation: Equation): MathNode {
  return math.parse(equation.expression.replace(/, with .*$/, ''))
}

/** A measure with its derivative by one input: (value, derivative). */
type Dual = readonly [number, number]

/** Evaluates a printed formula over dual numbers: the derivative comes along exactly. */
export function dualOf(node: MathNode, scope: Readonly<Record<string, Dual>>): Dual {
  if (node instanceof math.ConstantNode) return [Number(node.value), 0]
  if (node instanceof math.SymbolNode) return scope[node.name] ?? [NaN, NaN]
  if (node instanceof math.ParenthesisNode) return dualOf(node.content, scope)
  if (node instanceof math.FunctionNode) {
    const [x, dx] = dualOf(node.args[0] as MathNode, scope)
    if (node.fn.name !== 'log10') throw new Error(`no rule for ${node.fn.name}`)
    return [Math.log10(x), dx / (x * Math.LN10)]
  }
  if (!(node instanceof math.OperatorNode)) throw new Error(`no rule for ${node.type}`)
  const [[a, da], [b, db] = [0, 0] as const] = node.args.map((arg: MathNode) => dualOf(arg, scope)) as [Dual, Dual?]
  switch (String(node.op)) {
    case '+':
      return [a + b, da + db]
    case '-':
      return node.args.length === 1 ? [-a, -da] : [a - b, da - db]
    case '*':
      return [a * b, da * b + a * db]
    case '/':
      return [a / b, (da * b - a * db) / (b * b)]
    case '^':
      return [a ** b, b * a ** (b - 1) * da]
    default:
      throw new Error(`no rule for ${node.op}`)
  }
}

/** A middling adult with every site measured: folds 12 mm, girths in proportion. */
export function someMeasures(change: Partial<Measures> = {}): Measures {
  const girths: Partial<Record<SiteId, number>> = {
    neck: 37,
    shoulders: 110,
    'chest-girth': 95,
    waist: 80,
    abdomen: 84,
    iliac: 88,
    hip: 98,
    'thigh-girth': 56,
    'calf-girth': 37,
    'arm-relaxed': 30,
    'arm-flexed': 32,
    forearm: 27,
    wrist: 17,
    ankle: 23,
  }
  const sites = Object.fromEntries(
    Object.keys(SITES).map((id) => {
      const site = asSite(id)
      return [id, site && isFold(site) ? 12 : (girths[id as SiteId] ?? NaN)]
    }),
  )
  return { ...sites, age: 34, height: 174, weight: 74, ...change } as Measures
}
