import type { FoldSiteId } from '../folds'
import { bone, skin, type FoldCloseUp } from './close-up'

const ARMPIT_LINE = {
  armpit: skin('middle of the armpit', [150, 66], 'left'),
  breastbone: bone('end of the breastbone', [246, 160], 'below'),
} as const

const THIGH = {
  groin: skin('groin crease', [116, 62], 'right'),
  kneecap: bone('top of the kneecap', [106, 392], 'right'),
} as const

/** The close-up of every fold: landmarks, what is measured between them, the mark by its rule, and the crest. */
export const FOLD_CLOSE_UPS: Readonly<Record<FoldSiteId, FoldCloseUp>> = {
  triceps: {
    kind: 'fold',
    region: 'arm-back',
    landmarks: {
      shoulder: bone('tip of the shoulder', [140, 54], 'right'),
      elbow: bone('tip of the elbow', [134, 344], 'right'),
    },
    mark: { rule: 'between', from: 'shoulder', to: 'elbow', share: 0.5 },
    guides: [{ from: 'shoulder', to: 'elbow', measured: true, words: 'half way', label: 'right' }],
    crest: 0,
  },
  'triceps-kin': {
    kind: 'fold',
    region: 'arm-back',
    landmarks: {
      shoulder: bone('outer edge of the shoulder tip', [142, 52], 'right'),
      radius: bone('head of the radius', [152, 356], 'right'),
      back: skin('midline at the back', [137, 260], 'left'),
      half: skin('half way', [147, 204], 'right'),
    },
    mark: { rule: 'crossing', under: 'back', level: 'half' },
    guides: [
      { from: 'shoulder', to: 'radius', measured: true, words: 'half way', label: 'right', wordsAt: 0.3 },
      { from: 'half', to: 'mark' },
    ],
    crest: 0,
  },
  biceps: {
    kind: 'fold',
    region: 'arm-front',
    landmarks: {
      shoulder: bone('tip of the shoulder', [110, 54], 'left'),
      level: skin('level of the triceps mark', [62, 199], 'below'),
      belly: skin('belly of the muscle', [116, 199], 'below'),
    },
    mark: { rule: 'from', from: 'belly', across: 0, down: -10 },
    guides: [
      { from: 'level', to: [172, 199] },
      { from: 'belly', to: 'mark', measured: true, words: '1 cm', label: 'right' },
    ],
    crest: 0,
  },
  'biceps-kin': {
    kind: 'fold',
    region: 'arm-front',
    landmarks: {
      shoulder: bone('tip of the shoulder', [110, 54], 'left'),
      level: skin('level of the triceps mark', [62, 199], 'below'),
      belly: skin('belly of the muscle', [116, 246], 'right'),
    },
    mark: { rule: 'crossing', under: 'belly', level: 'level' },
    guides: [{ from: 'level', to: [172, 199] }],
    crest: 0,
  },
  chest: {
    kind: 'fold',
    region: 'chest',
    landmarks: {
      armpit: skin('front fold of the armpit', [88, 112], 'above'),
      nipple: skin('nipple', [156, 170], 'right'),
    },
    mark: { rule: 'between', from: 'armpit', to: 'nipple', share: 0.5 },
    female: { rule: 'between', from: 'armpit', to: 'nipple', share: 1 / 3 },
    guides: [{ from: 'armpit', to: 'nipple', measured: true, words: 'half, women a third', label: 'right' }],
    crest: 130,
  },
  midaxillary: {
    kind: 'fold',
    region: 'flank',
    landmarks: ARMPIT_LINE,
    mark: { rule: 'crossing', under: 'armpit', level: 'breastbone' },
    guides: [
      { from: 'armpit', to: [150, 300] },
      { from: 'breastbone', to: 'mark' },
    ],
    crest: 0,
  },
  'midaxillary-horizontal': {
    kind: 'fold',
    region: 'flank',
    landmarks: ARMPIT_LINE,
    mark: { rule: 'crossing', under: 'armpit', level: 'breastbone' },
    guides: [
      { from: 'armpit', to: [150, 300] },
      { from: 'breastbone', to: 'mark' },
    ],
    crest: 90,
  },
  subscapular: {
    kind: 'fold',
    region: 'back',
    landmarks: { corner: bone('lowest corner of the shoulder blade', [140, 196], 'above') },
    // 2 cm along 45 degrees.
    mark: { rule: 'from', from: 'corner', across: 20 * Math.SQRT1_2, down: 20 * Math.SQRT1_2 },
    guides: [{ from: 'corner', to: 'mark', measured: true, words: '2 cm', label: 'right' }],
    crest: 135,
  },
  suprailiac: {
    kind: 'fold',
    region: 'flank',
    landmarks: {
      front: skin('front of the armpit', [190, 56], 'right'),
      crest: bone('hip crest under it', [190, 298], 'right'),
    },
    mark: { rule: 'from', from: 'crest', across: 0, down: -10 },
    guides: [{ from: 'front', to: 'crest' }],
    crest: 122,
  },
  'iliac-crest': {
    kind: 'fold',
    region: 'flank',
    landmarks: {
      armpit: skin('middle of the armpit', [150, 66], 'left'),
      crest: bone('outermost point of the hip crest', [150, 284], 'below'),
    },
    mark: { rule: 'from', from: 'crest', across: 0, down: -10 },
    guides: [{ from: 'armpit', to: 'crest' }],
    crest: 105,
  },
  supraspinale: {
    kind: 'fold',
    region: 'hip-front',
    landmarks: {
      spine: bone('front point of the hip bone', [104, 284], 'right'),
      armpit: skin('to the front of the armpit', [66, 10], 'right'),
      crest: bone('hip crest', [46, 222], 'below'),
    },
    mark: { rule: 'on-line', from: 'spine', to: 'armpit', level: 'crest' },
    guides: [
      { from: 'spine', to: 'armpit' },
      { from: 'crest', to: [150, 222], words: 'level of the crest', label: 'right', wordsAt: 1 },
    ],
    crest: 130,
  },
  abdominal: {
    kind: 'fold',
    region: 'belly',
    landmarks: { navel: skin('navel', [177, 100], 'right') },
    mark: { rule: 'from', from: 'navel', across: -20, down: 0 },
    guides: [{ from: 'navel', to: 'mark', measured: true, words: '2 cm', label: 'below' }],
    crest: 0,
  },
  'abdominal-5cm': {
    kind: 'fold',
    region: 'belly',
    landmarks: { navel: skin('middle of the navel', [177, 100], 'below') },
    mark: { rule: 'from', from: 'navel', across: -50, down: 0 },
    guides: [{ from: 'navel', to: 'mark', measured: true, words: '5 cm', label: 'above' }],
    crest: 0,
  },
  'abdominal-horizontal': {
    kind: 'fold',
    region: 'belly',
    landmarks: { navel: skin('middle of the navel', [177, 100], 'above') },
    mark: { rule: 'from', from: 'navel', across: -30, down: 10 },
    guides: [
      { from: 'navel', to: [147, 100], measured: true },
      { from: [147, 100], to: 'mark', measured: true, words: '3 cm out, 1 cm down', label: 'left' },
    ],
    crest: 90,
  },
  thigh: {
    kind: 'fold',
    region: 'thigh-front',
    landmarks: THIGH,
    mark: { rule: 'between', from: 'groin', to: 'kneecap', share: 0.5 },
    guides: [{ from: 'groin', to: 'kneecap', measured: true, words: 'half way', label: 'right' }],
    crest: 0,
  },
  'front-thigh': {
    kind: 'fold',
    region: 'thigh-seated',
    landmarks: {
      groin: skin('groin crease', [116, 86], 'above'),
      kneecap: bone('top of the kneecap', [374, 108], 'above'),
    },
    mark: { rule: 'between', from: 'groin', to: 'kneecap', share: 0.5 },
    guides: [{ from: 'groin', to: 'kneecap', measured: true, words: 'half way', label: 'below' }],
    crest: 93,
  },
  'medial-calf': {
    kind: 'fold',
    region: 'calf-inner',
    landmarks: {
      greatest: skin('greatest girth', [180, 120], 'right'),
      middle: skin('middle of the inner side', [124, 60], 'left'),
      ankle: bone('inner ankle', [111, 346], 'left'),
    },
    mark: { rule: 'crossing', under: 'middle', level: 'greatest' },
    guides: [{ from: [68, 120], to: 'greatest' }],
    crest: 0,
  },
  'lower-back': {
    kind: 'fold',
    region: 'lower-back',
    landmarks: {
      dimple: bone('dimple of the pelvis', [152, 190], 'below'),
      spine: bone('spine', [109, 60], 'left'),
    },
    mark: { rule: 'from', from: 'dimple', across: 8, down: -24 },
    guides: [{ from: 'dimple', to: 'mark' }],
    crest: 135,
  },
}
