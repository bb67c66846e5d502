import type { Protocol } from './protocols'

/** How the laboratory school reads. */
export const LABORATORY = { school: 'laboratory', policy: 'laboratory', girthPolicy: 'tape' } as const
const TAPE = { school: 'tape', policy: 'tape', girthPolicy: 'tape', sumName: 'Sum of folds' } as const

/** Sets for the home and for the tape alone (common practice; the equations' own papers are named with them). */
export const HOME_AND_TAPE = {
  'home-3-men': {
    ...LABORATORY,
    id: 'home-3-men',
    name: 'Three folds at home, men',
    school: 'home',
    policy: 'home',
    sites: ['chest', 'abdominal', 'thigh'],
    sumName: 'Sum of three',
    purpose: 'Men measured at home.',
  },
  'home-3-women': {
    ...LABORATORY,
    id: 'home-3-women',
    name: 'Three folds at home, women',
    school: 'home',
    policy: 'home',
    sites: ['triceps', 'suprailiac', 'thigh'],
    sumName: 'Sum of three',
    purpose: 'Women measured at home.',
  },
  'navy-tape': {
    ...TAPE,
    id: 'navy-tape',
    name: 'Navy tape',
    sites: ['neck', 'waist', 'abdomen', 'hip'],
    onWish: { male: ['waist', 'hip'], female: ['abdomen'] },
    purpose: 'Folds that cannot be lifted, or a client who prefers the tape.',
  },
  'one-site-tape': {
    ...TAPE,
    id: 'one-site-tape',
    name: 'One-site tape',
    sites: ['abdomen'],
    purpose: 'The quickest: abdomen and weight.',
  },
  'full-tape': {
    ...TAPE,
    id: 'full-tape',
    name: 'Full tape',
    sites: [
      'neck',
      'shoulders',
      'chest-girth',
      'waist',
      'waist-mid',
      'abdomen',
      'iliac',
      'hip',
      'thigh-girth',
      'mid-thigh-girth',
      'calf-girth',
      'arm-relaxed',
      'arm-flexed',
      'forearm',
      'wrist',
      'ankle',
    ],
    onWish: { male: ['waist-mid', 'mid-thigh-girth'], female: ['waist-mid', 'mid-thigh-girth'] },
    purpose: 'Where size matters as much as fat.',
  },
} as const satisfies Record<string, Protocol>
