/** Other ways to a percentage of fat, each a line of its own. */
export const OTHER_METHODS = ['bia-hand-foot', 'bia-foot', 'hydrostatic', 'air', 'dxa', 'ultrasound', 'look'] as const
export type OtherMethod = (typeof OTHER_METHODS)[number]

/** What is asked beside the percentage, and what is said about it. */
export interface MethodFacts {
  id: OtherMethod
  name: string
  /** What it measures and what it guesses (common practice). */
  about: string
  /** How one is prepared. */
  prepare: string
  /** Conditions noted with it: id, words, answers. */
  asks: readonly { id: string; name: string; answers: readonly { id: string; name: string }[] }[]
  /** The maker's own numbers that are kept as told. */
  told: readonly { id: string; name: string; unit: string; low: number; high: number }[]
}

const YES_NO = [
  { id: 'yes', name: 'yes' },
  { id: 'no', name: 'no' },
] as const

const IMPEDANCE_ASKS = [
  {
    id: 'hydration',
    name: 'Drunk as usual, no training or alcohol since yesterday',
    answers: [
      { id: 'usual', name: 'as usual' },
      { id: 'dry', name: 'drier than usual' },
      { id: 'full', name: 'just drunk or eaten' },
    ],
  },
  { id: 'implant', name: 'An implanted device (pacemaker, pump, defibrillator)', answers: YES_NO },
] as const

const FAT_SEGMENTS = [
  { id: 'arm-right', name: 'Right arm', unit: '%', low: 1, high: 75 },
  { id: 'arm-left', name: 'Left arm', unit: '%', low: 1, high: 75 },
  { id: 'trunk', name: 'Trunk', unit: '%', low: 1, high: 75 },
  { id: 'leg-right', name: 'Right leg', unit: '%', low: 1, high: 75 },
  { id: 'leg-left', name: 'Left leg', unit: '%', low: 1, high: 75 },
] as const

const IMPEDANCE_TOLD = [
  { id: 'visceral', name: 'Visceral figure', unit: '', low: 0, high: 60 },
  { id: 'water', name: 'Body water', unit: '%', low: 20, high: 80 },
] as const

const GUT = [
  {
    id: 'gut',
    name: 'Gas or a full gut',
    answers: [
      { id: 'empty', name: 'empty, fasted' },
      { id: 'fed', name: 'eaten or gassy' },
    ],
  },
] as const

/** What is known of each method: common practice, in the product's own words. */
export const METHODS: Readonly<Record<OtherMethod, MethodFacts>> = {
  'bia-hand-foot': {
    id: 'bia-hand-foot',
    name: 'Impedance, handles and feet',
    about: 'Measures water by its resistance from hand to foot, and takes fat from the maker’s own equation.',
    prepare:
      'Same hour, drunk as usual, bladder empty, four hours after a meal, twelve after training. Never with an implanted device.',
    asks: IMPEDANCE_ASKS,
    told: [...IMPEDANCE_TOLD, ...FAT_SEGMENTS],
  },
  'bia-foot': {
    id: 'bia-foot',
    name: 'Impedance, feet only',
    about: 'The current runs up one leg and down the other: the trunk is guessed.',
    prepare:
      'Same hour, drunk as usual, bare dry feet, four hours after a meal, twelve after training. Never with an implanted device.',
    asks: IMPEDANCE_ASKS,
    told: IMPEDANCE_TOLD,
  },
  hydrostatic: {
    id: 'hydrostatic',
    name: 'Weighing under water',
    about:
      'Density from weight under water; the air left in the lungs has to be known. Gas and a full gut can move it by some 2 points.',
    prepare: 'Fasted, gut empty, breathed right out, several dips until they agree.',
    asks: GUT,
    told: [{ id: 'residual', name: 'Air left in the lungs', unit: 'l', low: 0.3, high: 4 }],
  },
  air: {
    id: 'air',
    name: 'Air displacement',
    about: 'Density from the air a body displaces. Hair, clothes and warm skin move it; a full gut by some 2 points.',
    prepare: 'Fasted, tight swimwear, cap, dry and rested skin.',
    asks: GUT,
    told: [{ id: 'thoracic', name: 'Air in the chest', unit: 'l', low: 0.5, high: 8 }],
  },
  dxa: {
    id: 'dxa',
    name: 'X-ray absorptiometry',
    about:
      'Fat, lean and bone by two energies of X-rays; two makes differ by several points. A dose of radiation: somebody licensed decides.',
    prepare: 'The same machine, fasted, no contrast medium or nuclear medicine lately. Not in pregnancy.',
    asks: [],
    told: [
      { id: 'bone', name: 'Bone mineral', unit: 'kg', low: 0.5, high: 6 },
      ...FAT_SEGMENTS,
      { id: 'visceral', name: 'Visceral fat', unit: 'g', low: 0, high: 6000 },
    ],
  },
  ultrasound: {
    id: 'ultrasound',
    name: 'Ultrasound',
    about: 'Thickness of the fat under the skin without pressing it, and an equation made for that.',
    prepare: 'The same sites marked, enough gel, the probe held without pressure.',
    asks: [],
    told: [{ id: 'sum', name: 'Sum of thicknesses', unit: 'mm', low: 2, high: 400 }],
  },
  look: {
    id: 'look',
    name: 'A look at photographs',
    about: 'A guess by eye. Wide of the mark by several points even for people who do it daily.',
    prepare: 'The same light, distance and pose; guessed before the folds are known.',
    asks: [],
    told: [],
  },
}

/** Whether this method must not be used on somebody with these answers; the sentence, or null. */
export function refusal(method: OtherMethod, conditions: Readonly<Record<string, string>>): string | null {
  if ((method === 'bia-hand-foot' || method === 'bia-foot') && conditions.implant === 'yes')
    return 'No current through somebody with an implanted device: measure folds or tape.'
  return null
}
