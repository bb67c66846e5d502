import type { ChosenActivity } from '../../core/composition/facts'
import type { Flag } from '../../core/cautions'
import type { Course } from '../../core/simulate'
import type { TargetKind } from '../../core/plan'
import type { ProtocolId } from '../../core/protocols'

/** An invented client of the rowing club's land gym. */
export interface DemoClient {
  name: string
  age: number
  heightCm: number
  notes: string
  consent: boolean
  archived: boolean
  course: Course
  /** Days before today of each visit, newest last. */
  visitDays: number[]
  protocolId?: ProtocolId
  /** Another set for the newest visits. */
  later?: { protocolId: ProtocolId; visits: number }
  /** Measured by the other coach for the first visits. */
  otherCoachFor?: number
  /** Conditions of the newest visit that were not as ever. */
  lastConditions?: Readonly<Record<string, string>>
  /** Days of daily weigh-ins up to today. */
  diaryDays?: number
  /** Cadence of their own, and a day that does not move so many days from now. */
  schedule?: { cadenceDays: number | null; event?: { inDays: number; name: string } }
  /** A log of intake until today, kcal a day about a mean, and how active they are. */
  energy?: { days: number; kcal: number; activity: ChosenActivity }
  /** Agreed to photographs, taken at the visits of these places (0 is the first). */
  photographedAt?: readonly number[]
  athlete?: boolean
  flags?: readonly Flag[]
  landmarks?: Readonly<Record<string, string>>
  /** What the coach set, and at the visit of which place. */
  plan?: { fromVisit: number; kind: TargetKind; value: number; perWeek: number; unit: 'kg' | 'mm' }
  /** The newest visit stopped after this many folds. */
  unfinishedAfter?: number
}

/** Visits every `every` days, `count` of them, the newest `newest` days ago, with a day or two of drift. */
function visits(count: number, every: number, newest: number): number[] {
  return Array.from({ length: count }, (_, i) => newest + (count - 1 - i) * every + (((count - 1 - i) * 5) % 3))
}

export const DEMO_STUDIO = 'Reedwater Rowing Club, land gym'

export const DEMO_PASSWORD = 'reeds-and-oars'

export const DEMO_STAFF = [
  { name: 'Runa Bexley', email: 'runa@reedwater.example', role: 'lead' },
  { name: 'Ivo Tarn', email: 'ivo@reedwater.example', role: 'coach' },
] as const

/** People of different ages, sexes and histories, each telling something of their own. */
const TOLD: DemoClient[] = [
  {
    name: 'Maren Osk',
    age: 34,
    heightCm: 174,
    notes: 'Masters four, bow seat. Trains before work.',
    landmarks: { suprailiac: 'freckle one finger above the crest', thigh: 'two fingers below the small scar' },
    consent: true,
    archived: false,
    course: {
      sex: 'female',
      sumMm: { first: 121, last: 97 },
      weightKg: { first: 74.6, last: 71.4 },
      wave: 0.02,
      heldFrom: 0.72,
    },
    visitDays: visits(18, 30, 3),
    diaryDays: 240,
    schedule: { cadenceDays: null, event: { inDays: 38, name: 'Reedwater winter head' } },
    energy: { days: 110, kcal: 2260, activity: { kind: 'hours', work: 'seated', trainingHours: 7 } },
    photographedAt: [9, 14, 17],
    plan: { fromVisit: 9, kind: 'fat', value: 13.5, perWeek: 0.06, unit: 'kg' },
    athlete: false,
  },
  {
    name: 'Tobin Hale',
    age: 47,
    heightCm: 183,
    notes: 'Masters eight. Right shoulder stiff in the morning.',
    consent: true,
    archived: false,
    course: {
      sex: 'male',
      sumMm: { first: 154, last: 128 },
      weightKg: { first: 96.2, last: 91.8 },
      girthsCm: { waist: 92, abdomen: 96, hip: 104, 'mid-thigh-girth': 58, 'calf-girth': 39, 'arm-relaxed': 35 },
      wave: 0.03,
    },
    visitDays: visits(12, 42, 12),
    later: { protocolId: 'laboratory-7-tape', visits: 7 },
    otherCoachFor: 4,
    lastConditions: { training: 'after' },
    plan: { fromVisit: 7, kind: 'sum', value: 105, perWeek: 0.9, unit: 'mm' },
    diaryDays: 45,
  },
  {
    name: 'Sanna Quill',
    age: 21,
    heightCm: 179,
    notes: 'Juniors’ coach and sculler. Lighter in the race season.',
    consent: true,
    archived: false,
    course: { sex: 'female', sumMm: { first: 92, last: 84 }, weightKg: { first: 70.3, last: 70.9 }, wave: 0.06 },
    visitDays: visits(14, 28, 0),
    unfinishedAfter: 9,
  },
  {
    name: 'Edrik Vane',
    age: 28,
    heightCm: 188,
    notes: 'Stroke seat. Building for the autumn head race. Followed by the sum of eight.',
    later: { protocolId: 'kinanthropometry-8', visits: 9 },
    athlete: true,
    consent: true,
    archived: false,
    course: { sex: 'male', sumMm: { first: 72, last: 70 }, weightKg: { first: 84.1, last: 87.6 }, wave: 0.02 },
    visitDays: visits(16, 21, 6),
  },
  {
    name: 'Petra Lindqvane',
    age: 58,
    heightCm: 166,
    notes: 'Volunteer at the boathouse. Older than the sample of the seven-fold equation: follow the sum.',
    consent: true,
    archived: false,
    course: { sex: 'female', sumMm: { first: 148, last: 139 }, weightKg: { first: 70.8, last: 69.1 }, wave: 0.02 },
    visitDays: visits(7, 56, 31),
  },
  {
    name: 'Oskar Brandeth',
    age: 39,
    heightCm: 176,
    notes: 'Launch driver, new to the gym. Prefers the tape.',
    protocolId: 'navy-tape',
    consent: true,
    archived: false,
    course: {
      sex: 'male',
      sumMm: { first: 171, last: 160 },
      weightKg: { first: 112.4, last: 108.7 },
      girthsCm: { neck: 42, waist: 108, abdomen: 114, hip: 112 },
      wave: 0.01,
    },
    visitDays: visits(3, 28, 34),
  },
  {
    name: 'Liv Ambersen',
    age: 25,
    heightCm: 171,
    notes: 'Coxswain. Consent talk planned for the first visit.',
    flags: ['neutral-wish'],
    consent: false,
    archived: false,
    course: { sex: 'female', sumMm: { first: 88, last: 88 }, weightKg: { first: 54, last: 54 }, wave: 0 },
    visitDays: [],
  },
  {
    name: 'Gerrit Pell',
    age: 63,
    heightCm: 181,
    notes: 'Moved to another lake.',
    consent: true,
    archived: true,
    course: { sex: 'male', sumMm: { first: 133, last: 136 }, weightKg: { first: 86.5, last: 86.9 }, wave: 0.02 },
    visitDays: visits(5, 60, 190),
  },
]

/** A rower of a crew measured every few weeks: from how many check-ins the club's own measuring error is learnt. */
function rower(
  name: string,
  [age, heightCm, notes]: readonly [age: number, heightCm: number, notes: string],
  course: Omit<Course, 'wave'>,
  [count, every, newest]: readonly [count: number, every: number, newest: number],
  archived = false,
): DemoClient {
  const visitDays = visits(count, every, newest)
  return { name, age, heightCm, notes, consent: true, archived, course: { ...course, wave: 0.004 }, visitDays }
}

const level = (first: number, last: number) => ({ first, last })

/** The masters crews, on the water now or in seasons before. */
const CREWS: DemoClient[] = [
  rower(
    'Henrike Dahl',
    [41, 170, 'Masters four, two seat.'],
    { sex: 'female', sumMm: level(112, 110), weightKg: level(66.1, 65.8) },
    [9, 35, 10],
  ),
  rower(
    'Jorun Vesterby',
    [52, 168, 'Masters four, three seat.'],
    { sex: 'female', sumMm: level(134, 131), weightKg: level(69.4, 69) },
    [8, 38, 17],
  ),
  rower(
    'Anselm Roke',
    [44, 186, 'Masters eight, six seat.'],
    { sex: 'male', sumMm: level(104, 100), weightKg: level(90.2, 89.6) },
    [9, 33, 8],
  ),
  rower(
    'Tilde Marrow',
    [36, 176, 'Last year’s masters double.'],
    { sex: 'female', sumMm: level(98, 97), weightKg: level(68.8, 68.9) },
    [8, 30, 380],
    true,
  ),
  rower(
    'Bastian Orme',
    [49, 182, 'Last year’s masters eight.'],
    { sex: 'male', sumMm: level(118, 121), weightKg: level(87.5, 88.1) },
    [8, 34, 395],
    true,
  ),
  rower(
    'Klara Fenn',
    [57, 165, 'Rowed until the spring.'],
    { sex: 'female', sumMm: level(141, 138), weightKg: level(67.2, 66.9) },
    [7, 40, 210],
    true,
  ),
  rower(
    'Ruben Askeby',
    [38, 190, 'Rowed until the summer.'],
    { sex: 'male', sumMm: level(89, 86), weightKg: level(92.3, 92) },
    [8, 28, 150],
    true,
  ),
]

export const DEMO_CLIENTS: readonly DemoClient[] = [...TOLD, ...CREWS]

/** Calipers of the land gym, with the days since their last check against the block. */
export const DEMO_CALIPERS = [
  { name: 'Steel caliper, bench', checkedDaysAgo: 40, deviationMm: 0.1 },
  { name: 'Travel caliper, plastic', checkedDaysAgo: 430, deviationMm: 0.6 },
] as const

/** How the club measures: before training, in the evening. */
export const DEMO_CONDITIONS = {
  time: 'evening',
  training: 'before',
  skin: 'dry',
  clothing: 'singlet',
  food: 'hours-ago',
  toilet: 'just-before',
}
