import type { GirthSiteId } from '../girths'
import { bone, skin, type GirthCloseUp } from './close-up'

/** The close-up of every girth: what its level is found by, and the tape. */
export const GIRTH_CLOSE_UPS: Readonly<Record<GirthSiteId, GirthCloseUp>> = {
  neck: {
    kind: 'girth',
    region: 'neck',
    landmarks: { larynx: bone('larynx', [130, 92], 'right') },
    guides: [],
    tape: { from: [81, 104], to: [179, 104], sag: 12 },
  },
  'neck-kin': {
    kind: 'girth',
    region: 'neck',
    landmarks: { larynx: bone('larynx', [130, 92], 'right') },
    guides: [],
    tape: { from: [82, 82], to: [178, 82], sag: 5 },
  },
  shoulders: {
    kind: 'girth',
    region: 'upper-trunk',
    landmarks: { broadest: skin('broadest part of the muscle', [31, 128], 'above') },
    guides: [],
    tape: { from: [31, 128], to: [449, 128], sag: 16 },
  },
  'chest-girth': {
    kind: 'girth',
    region: 'upper-trunk',
    landmarks: {
      nipple: skin('nipple line: men', [170, 236], 'above'),
      bust: skin('under the bust: women', [176, 274], 'below'),
    },
    guides: [{ from: [110, 288], to: [370, 288] }],
    tape: { from: [103, 228], to: [377, 228], sag: 12 },
  },
  'chest-meso': {
    kind: 'girth',
    region: 'upper-trunk',
    landmarks: { middle: bone('middle of the breastbone', [240, 204], 'right') },
    guides: [],
    tape: { from: [102, 204], to: [378, 204], sag: 12 },
  },
  waist: {
    kind: 'girth',
    region: 'trunk',
    landmarks: {
      rib: bone('lowest rib', [104, 66], 'right'),
      crest: bone('hip crest', [92, 204], 'right'),
    },
    guides: [{ from: 'rib', to: 'crest', words: 'narrowest', label: 'left' }],
    tape: { from: [110, 122], to: [310, 122], sag: 10 },
  },
  'waist-mid': {
    kind: 'girth',
    region: 'trunk',
    landmarks: {
      rib: bone('lowest rib', [104, 66], 'right'),
      crest: bone('hip crest', [92, 204], 'right'),
    },
    guides: [{ from: 'rib', to: 'crest', measured: true, words: 'half way', label: 'left' }],
    tape: { from: [107, 135], to: [313, 135], sag: 10 },
  },
  abdomen: {
    kind: 'girth',
    region: 'trunk',
    landmarks: { navel: skin('navel', [210, 168], 'above') },
    guides: [],
    tape: { from: [103, 162], to: [317, 162], sag: 10 },
  },
  iliac: {
    kind: 'girth',
    region: 'trunk',
    landmarks: {
      crest: bone('hip crest', [92, 204], 'below'),
      other: bone('hip crest', [328, 204], 'below'),
    },
    guides: [],
    tape: { from: [90, 204], to: [330, 204], sag: 10 },
  },
  hip: {
    kind: 'girth',
    region: 'hip-side',
    landmarks: { farthest: skin('greatest protrusion', [40, 190], 'below') },
    guides: [],
    tape: { from: [40, 190], to: [235, 190], sag: 8 },
  },
  'thigh-girth': {
    kind: 'girth',
    region: 'thigh-back',
    landmarks: { fold: skin('fold under the buttock', [150, 142], 'above') },
    guides: [{ from: 'fold', to: [150, 152], measured: true, words: '1 cm', label: 'right', wordsAt: 0 }],
    tape: { from: [80, 150], to: [230, 150], sag: 2 },
  },
  'mid-thigh-girth': {
    kind: 'girth',
    region: 'thigh-front',
    landmarks: {
      knob: bone('outer knob of the thigh bone', [28, 40], 'right'),
      shin: bone('outer edge of the shin bone', [62, 440], 'right'),
    },
    guides: [{ from: 'knob', to: 'shin', measured: true, words: 'half way', label: 'right', wordsAt: 0.25 }],
    tape: { from: [34, 240], to: [164, 240], sag: 6 },
  },
  'thigh-unsaid': {
    kind: 'girth',
    region: 'thigh-back',
    landmarks: { fold: skin('fold under the buttock', [150, 142], 'above') },
    guides: [],
    tape: { from: [85, 180], to: [226, 180], sag: 2 },
  },
  'calf-girth': {
    kind: 'girth',
    region: 'shank',
    landmarks: { greatest: skin('greatest girth', [160, 118], 'below') },
    guides: [],
    tape: { from: [37, 118], to: [160, 118], sag: 7 },
  },
  'arm-relaxed': {
    kind: 'girth',
    region: 'arm-front',
    landmarks: {
      shoulder: bone('tip of the shoulder', [110, 54], 'left'),
      elbow: skin('elbow', [116, 344], 'left'),
    },
    guides: [{ from: 'shoulder', to: 'elbow', measured: true, words: 'half way', label: 'right', wordsAt: 0.25 }],
    tape: { from: [61, 199], to: [171, 199], sag: 7 },
  },
  'arm-flexed': {
    kind: 'girth',
    region: 'arm-flexed',
    landmarks: { peak: skin('peak of the biceps', [190, 119], 'above') },
    guides: [],
    tape: { from: [190, 120], to: [190, 236], sag: 8 },
  },
  forearm: {
    kind: 'girth',
    region: 'forearm',
    landmarks: { greatest: skin('greatest girth', [36, 112], 'below') },
    guides: [],
    tape: { from: [36, 112], to: [172, 112], sag: 8 },
  },
  wrist: {
    kind: 'girth',
    region: 'forearm',
    landmarks: {
      outer: bone('bony knob', [64, 330], 'left'),
      inner: bone('bony knob', [139, 326], 'right'),
    },
    guides: [],
    tape: { from: [60, 350], to: [141, 350], sag: 5 },
  },
  ankle: {
    kind: 'girth',
    region: 'shank',
    landmarks: {
      outer: bone('outer ankle', [63, 374], 'left'),
      inner: bone('inner ankle', [139, 366], 'right'),
    },
    guides: [],
    tape: { from: [69, 338], to: [130, 338], sag: 5 },
  },
}
