import { asFoldSite, FOLDS, type FoldSiteId } from './folds'
import { asGirthSite, GIRTHS, type GirthSiteId } from './girths'
import type { School, Site } from './site'

export type SiteId = FoldSiteId | GirthSiteId

/** Every site, fold or girth, by id. */
export const SITES: Readonly<Record<SiteId, Site>> = { ...FOLDS, ...GIRTHS }

/** Any text as a site's id, or null. */
export function asSite(id: string): SiteId | null {
  return asFoldSite(id) ?? asGirthSite(id)
}

/** True for a skinfold site. */
export function isFold(id: SiteId): id is FoldSiteId {
  return SITES[id].kind === 'fold'
}

/** A school as lists name it, and what it follows (common practice). */
export interface SchoolFacts {
  id: School
  name: string
  readings: string
  timing: string
  follows: string
  /** Seconds from full pressure of the jaws to the reading. */
  readAfterSeconds: number
}

/** The schools side by side: common practice, after their published manuals. */
export const SCHOOLS: Readonly<Record<School, SchoolFacts>> = {
  laboratory: {
    id: 'laboratory',
    name: 'Laboratory',
    readings: 'Two within 1 to 2 mm, repeated until they agree; mean',
    timing: '1 to 2 s',
    follows: 'percent fat with its error',
    readAfterSeconds: 2,
  },
  kinanthropometry: {
    id: 'kinanthropometry',
    name: 'Kinanthropometry',
    readings: 'Two, a third where they differ too much; mean of two, median of three',
    timing: '2 s',
    follows: 'the sum of folds',
    readAfterSeconds: 2,
  },
  'contest-prep': {
    id: 'contest-prep',
    name: 'Contest preparation',
    readings: 'One',
    timing: 'at once',
    follows: 'fat and lean pounds, week to week',
    readAfterSeconds: 1,
  },
  tape: {
    id: 'tape',
    name: 'Tape',
    readings: 'Two, a third where they are over 1 cm apart; mean of two, median of three',
    timing: 'end of a normal breath out',
    follows: 'girths and their ratios',
    readAfterSeconds: 0,
  },
  home: {
    id: 'home',
    name: 'Home',
    readings: 'Two; mean',
    timing: 'when the caliper clicks',
    follows: 'percent fat',
    readAfterSeconds: 2,
  },
}

/** Sites that lie on one another but are defined differently: never compared or mixed. */
export const CONFUSABLE: readonly { sites: readonly [SiteId, SiteId]; difference: string }[] = [
  { sites: ['abdominal', 'abdominal-5cm'], difference: '2 cm from the navel in one school, 5 cm in the other.' },
  { sites: ['thigh', 'front-thigh'], difference: 'The same midpoint, standing in one school, seated in the other.' },
  {
    sites: ['suprailiac', 'supraspinale'],
    difference: 'In line with the front of the armpit, or farther to the front on the line to the hip spine.',
  },
  {
    sites: ['suprailiac', 'iliac-crest'],
    difference: 'In line with the front of the armpit, or at the outermost point of the hip crest.',
  },
  {
    sites: ['midaxillary', 'midaxillary-horizontal'],
    difference: 'The same point, the fold lifted upright in one way and level in the other.',
  },
  {
    sites: ['iliac-crest', 'supraspinale'],
    difference: 'At the outermost point of the hip crest, or farther to the front on the line to the hip spine.',
  },
  {
    sites: ['triceps', 'triceps-kin'],
    difference:
      'Half way to the tip of the elbow, the elbow bent, or half way to the head of the radius, the arm hanging.',
  },
  { sites: ['biceps', 'biceps-kin'], difference: '1 cm above the triceps level, or at it.' },
  {
    sites: ['abdominal', 'abdominal-horizontal'],
    difference: '2 cm beside the navel and upright, or 3 cm beside and 1 cm below it and level.',
  },
  {
    sites: ['waist', 'waist-mid'],
    difference: 'The narrowest level, or half way from the lowest rib to the hip crest.',
  },
  {
    sites: ['thigh-girth', 'mid-thigh-girth'],
    difference: 'Under the fold of the buttock, or half way down the thigh.',
  },
  { sites: ['neck', 'neck-kin'], difference: 'Just below the larynx, or just above it.' },
  {
    sites: ['chest-girth', 'chest-meso'],
    difference: 'At the nipples or under the bust, or at the middle of the breastbone.',
  },
  { sites: ['waist', 'abdomen'], difference: 'The narrowest level, or the level of the navel.' },
  { sites: ['abdomen', 'iliac'], difference: 'The level of the navel, or of the hip crests.' },
  { sites: ['arm-relaxed', 'arm-flexed'], difference: 'Hanging relaxed, or tensed at a right angle.' },
]
