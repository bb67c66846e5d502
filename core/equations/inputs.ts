import type { Equation, InputId, Measures } from './equation'

/** Reads and writes one input by its own name. */
export interface InputAccess {
  get: (measures: Measures) => number
  set: (measures: Measures, value: number) => void
}

/**
 * Access to each input by name: in the inner loops of simulation and batch work several times faster than by a computed
 * key, which engines look up anew each time.
 */
export const INPUTS: Readonly<Record<InputId, InputAccess>> = {
  triceps: { get: (m) => m.triceps, set: (m, value) => (m.triceps = value) },
  'triceps-kin': { get: (m) => m['triceps-kin'], set: (m, value) => (m['triceps-kin'] = value) },
  biceps: { get: (m) => m.biceps, set: (m, value) => (m.biceps = value) },
  'biceps-kin': { get: (m) => m['biceps-kin'], set: (m, value) => (m['biceps-kin'] = value) },
  'abdominal-horizontal': {
    get: (m) => m['abdominal-horizontal'],
    set: (m, value) => (m['abdominal-horizontal'] = value),
  },
  chest: { get: (m) => m.chest, set: (m, value) => (m.chest = value) },
  midaxillary: { get: (m) => m.midaxillary, set: (m, value) => (m.midaxillary = value) },
  'midaxillary-horizontal': {
    get: (m) => m['midaxillary-horizontal'],
    set: (m, value) => (m['midaxillary-horizontal'] = value),
  },
  subscapular: { get: (m) => m.subscapular, set: (m, value) => (m.subscapular = value) },
  suprailiac: { get: (m) => m.suprailiac, set: (m, value) => (m.suprailiac = value) },
  'iliac-crest': { get: (m) => m['iliac-crest'], set: (m, value) => (m['iliac-crest'] = value) },
  supraspinale: { get: (m) => m.supraspinale, set: (m, value) => (m.supraspinale = value) },
  abdominal: { get: (m) => m.abdominal, set: (m, value) => (m.abdominal = value) },
  'abdominal-5cm': { get: (m) => m['abdominal-5cm'], set: (m, value) => (m['abdominal-5cm'] = value) },
  thigh: { get: (m) => m.thigh, set: (m, value) => (m.thigh = value) },
  'front-thigh': { get: (m) => m['front-thigh'], set: (m, value) => (m['front-thigh'] = value) },
  'medial-calf': { get: (m) => m['medial-calf'], set: (m, value) => (m['medial-calf'] = value) },
  'lower-back': { get: (m) => m['lower-back'], set: (m, value) => (m['lower-back'] = value) },
  neck: { get: (m) => m.neck, set: (m, value) => (m.neck = value) },
  shoulders: { get: (m) => m.shoulders, set: (m, value) => (m.shoulders = value) },
  'chest-girth': { get: (m) => m['chest-girth'], set: (m, value) => (m['chest-girth'] = value) },
  waist: { get: (m) => m.waist, set: (m, value) => (m.waist = value) },
  abdomen: { get: (m) => m.abdomen, set: (m, value) => (m.abdomen = value) },
  iliac: { get: (m) => m.iliac, set: (m, value) => (m.iliac = value) },
  hip: { get: (m) => m.hip, set: (m, value) => (m.hip = value) },
  'thigh-girth': { get: (m) => m['thigh-girth'], set: (m, value) => (m['thigh-girth'] = value) },
  'mid-thigh-girth': { get: (m) => m['mid-thigh-girth'], set: (m, value) => (m['mid-thigh-girth'] = value) },
  'thigh-unsaid': { get: (m) => m['thigh-unsaid'], set: (m, value) => (m['thigh-unsaid'] = value) },
  'neck-kin': { get: (m) => m['neck-kin'], set: (m, value) => (m['neck-kin'] = value) },
  'chest-meso': { get: (m) => m['chest-meso'], set: (m, value) => (m['chest-meso'] = value) },
  'waist-mid': { get: (m) => m['waist-mid'], set: (m, value) => (m['waist-mid'] = value) },
  'calf-girth': { get: (m) => m['calf-girth'], set: (m, value) => (m['calf-girth'] = value) },
  'arm-relaxed': { get: (m) => m['arm-relaxed'], set: (m, value) => (m['arm-relaxed'] = value) },
  'arm-flexed': { get: (m) => m['arm-flexed'], set: (m, value) => (m['arm-flexed'] = value) },
  forearm: { get: (m) => m.forearm, set: (m, value) => (m.forearm = value) },
  wrist: { get: (m) => m.wrist, set: (m, value) => (m.wrist = value) },
  ankle: { get: (m) => m.ankle, set: (m, value) => (m.ankle = value) },
  age: { get: (m) => m.age, set: (m, value) => (m.age = value) },
  height: { get: (m) => m.height, set: (m, value) => (m.height = value) },
  weight: { get: (m) => m.weight, set: (m, value) => (m.weight = value) },
}

const byEquation = new WeakMap<Equation, readonly InputAccess[]>()

/** Access to an equation's inputs, in their order. */
export function inputsOf(equation: Equation): readonly InputAccess[] {
  const known = byEquation.get(equation)
  if (known) return known
  const found = equation.inputs.map((input) => INPUTS[input])
  byEquation.set(equation, found)
  return found
}
