import { isFold, type SiteId } from '../../sites'
import { CM_PER_INCH, KG_PER_LB } from '../../units'
import { apartBy, type Correction, type Slip, type SlipEntry, type SlipMeasure } from './slip'
import { nameOf, rangeOf, say } from './words'

const MM_PER_INCH = CM_PER_INCH * 10

/** A value this close to another is taken for the same: about ten percent. */
const NEAR = 0.1
/** A fold changed by 40 %, as a log ratio: beyond any ordinary change between two visits. */
const FAR = Math.log(1.4)
/** Weight and girths change less: beyond these shares they are worth a look. */
const FAR_SHARE: Record<'fold' | 'girth' | 'weight' | 'height', number> = {
  fold: 0.4,
  girth: 0.12,
  weight: 0.08,
  height: 0.02,
}

function kindOf(measure: SlipMeasure): keyof typeof FAR_SHARE {
  if (measure === 'weight' || measure === 'height') return measure
  return isFold(measure) ? 'fold' : 'girth'
}

function fits(measure: SlipMeasure, value: number): boolean {
  const { low, high } = rangeOf(measure)
  return value >= low && value <= high
}

/** Other ways the same keys could have been meant, most likely first. */
function readings({ measure, value }: SlipEntry): { value: number; code: 'unit' | 'decimal'; why: string }[] {
  const tenth = { value: value / 10, code: 'decimal' as const, why: 'a decimal point may be missing' }
  switch (kindOf(measure)) {
    case 'fold':
      return [tenth, { value: value * MM_PER_INCH, code: 'unit', why: 'it looks like inches' }]
    case 'girth':
      return [{ value: value * CM_PER_INCH, code: 'unit', why: 'it looks like inches' }, tenth]
    case 'weight':
      return [{ value: value * KG_PER_LB, code: 'unit', why: 'it looks like pounds' }, tenth]
    case 'height':
      return [
        { value: value * 100, code: 'unit', why: 'it looks like metres' },
        { value: value * CM_PER_INCH, code: 'unit', why: 'it looks like inches' },
        tenth,
      ]
  }
}

function meant(measure: SlipMeasure, value: number): Correction {
  const rounded = Math.round(value * 10) / 10
  return { measure, value: rounded, label: say(measure, rounded) }
}

/** Outside what a body can have: blocks, with the range and what was probably meant. */
export function impossible(entry: SlipEntry): Slip | null {
  const { measure, value, last } = entry
  if (fits(measure, value)) return null
  const { low, high } = rangeOf(measure)
  const before = last[measure]
  const other = readings(entry).find(
    ({ value: meantValue }) => fits(measure, meantValue) && (before === undefined || apartBy(meantValue, before) < FAR),
  )
  const range = `${nameOf(measure)[0]?.toUpperCase()}${nameOf(measure).slice(1)} lies between ${low} and ${say(measure, high)}`
  return {
    code: 'range',
    sentence: other ? `${range}; ${other.why}.` : `${range}.`,
    blocks: true,
    correction: other ? meant(measure, other.value) : null,
  }
}

/** Possible, but another unit or a lost decimal point would meet the last value and this does not. */
export function otherUnit(entry: SlipEntry): Slip | null {
  const { measure, value, last } = entry
  const before = last[measure]
  if (before === undefined || apartBy(value, before) < FAR) return null
  const other = readings(entry).find((reading) => fits(measure, reading.value) && apartBy(reading.value, before) < NEAR)
  if (!other) return null
  return {
    code: other.code,
    sentence: `Last time ${say(measure, before)}: ${other.why}.`,
    blocks: false,
    correction: meant(measure, other.value),
  }
}

/** Fits the last value of another site of the same kind much better than its own: typed in the wrong row. */
export function wrongRow(entry: SlipEntry): Slip | null {
  const { measure, value, last, here } = entry
  const own = last[measure]
  if (own === undefined || measure === 'weight' || measure === 'height') return null
  const distance = apartBy(value, own)
  if (distance < Math.log(1.3)) return null
  const others = (Object.keys(last) as SiteId[]).filter(
    (other) => other !== measure && kindOf(other) === kindOf(measure) && here[other] === undefined,
  )
  const best = others
    .map((site) => ({ site, distance: apartBy(value, last[site] ?? value * 9) }))
    .sort((a, b) => a.distance - b.distance)[0]
  if (!best || best.distance > 0.06 || distance < 4 * best.distance) return null
  return {
    code: 'wrong-row',
    sentence: `Last time ${nameOf(measure)} was ${say(measure, own)} and ${nameOf(best.site)} ${say(best.site, last[best.site] ?? 0)}: typed in the wrong row?`,
    blocks: false,
    correction: { measure: best.site, value, label: `${say(measure, value)} at ${nameOf(best.site)}` },
  }
}

/** This site and one read before hold each other's last values. */
export function swapped(entry: SlipEntry): Slip | null {
  const { measure, value, last, here } = entry
  const own = last[measure]
  if (own === undefined || apartBy(value, own) < Math.log(1.3)) return null
  const other = (Object.keys(here) as SlipMeasure[]).find((site) => {
    const [now, then] = [here[site], last[site]]
    if (site === measure || kindOf(site) !== kindOf(measure) || now === undefined || then === undefined) return false
    return apartBy(value, then) < NEAR && apartBy(now, own) < NEAR && apartBy(now, then) > Math.log(1.3)
  })
  if (!other) return null
  return {
    code: 'swapped',
    sentence: `${say(measure, value)} here and ${say(other, here[other] ?? 0)} at ${nameOf(other)} look swapped.`,
    blocks: false,
    correction: { measure, value: here[other] ?? value, label: `swap with ${nameOf(other)}`, swapWith: other },
  }
}

/** Far from this client's last value: beyond three smallest real changes, or a large share of it. */
export function farFromLast({ measure, value, last, realChange }: SlipEntry): Slip | null {
  const before = last[measure]
  if (before === undefined) return null
  const change = Math.abs(value - before)
  const beyondError = realChange !== undefined && change > 3 * realChange
  if (!beyondError && change <= FAR_SHARE[kindOf(measure)] * before) return null
  return {
    code: 'far',
    sentence: `Last time ${say(measure, before)}: ${say(measure, change)} ${value > before ? 'more' : 'less'}. Read it once more?`,
    blocks: false,
    correction: null,
  }
}

/** Most that a girth or the weight moves in a week: half an inch is usually a misplaced tape (common practice). */
const PER_WEEK = {
  girth: { most: CM_PER_INCH / 2, words: 'a misplaced tape' },
  weight: { most: 3, words: 'a slip or water' },
}

/** A girth or the weight has moved faster than bodies do. */
export function tooFast({ measure, value, last, daysSince }: SlipEntry): Slip | null {
  const [before, kind] = [last[measure], kindOf(measure)]
  if (before === undefined || daysSince === undefined || daysSince === null) return null
  if (kind !== 'girth' && kind !== 'weight') return null
  const weeks = Math.max(1, daysSince / 7)
  const { most, words } = PER_WEEK[kind]
  const change = Math.abs(value - before)
  if (change < most * weeks) return null
  const ago = daysSince === 1 ? 'yesterday' : `${daysSince} days ago`
  return {
    code: 'fast',
    sentence: `Last time ${say(measure, before)}, ${daysSince === 0 ? 'today' : ago}: ${say(measure, change)} ${value > before ? 'more' : 'less'} is usually ${words}. ${kind === 'girth' ? 'Measure' : 'Weigh'} again?`,
    blocks: false,
    correction: null,
  }
}

interface Order {
  small: SiteId
  large: SiteId
  /** `small` may be at most this share of `large`. */
  share: number
}

/** Orders that bodies keep (common practice). */
const ORDERS: readonly Order[] = [
  { small: 'neck', large: 'abdomen', share: 1 },
  { small: 'neck', large: 'waist', share: 1 },
  { small: 'wrist', large: 'forearm', share: 1 },
  { small: 'ankle', large: 'calf-girth', share: 1 },
  { small: 'calf-girth', large: 'thigh-girth', share: 1 },
  { small: 'calf-girth', large: 'mid-thigh-girth', share: 1 },
  { small: 'mid-thigh-girth', large: 'thigh-girth', share: 1.05 },
  { small: 'arm-relaxed', large: 'arm-flexed', share: 1.02 },
  { small: 'forearm', large: 'arm-flexed', share: 1.1 },
  { small: 'waist', large: 'hip', share: 1.25 },
  { small: 'waist', large: 'abdomen', share: 1.1 },
]

/** Breaks an order that bodies keep. */
export function bodyOrder({ measure, value, here }: SlipEntry): Slip | null {
  const values: SlipEntry['here'] = { ...here, [measure]: value }
  const broken = ORDERS.find(({ small, large, share }) => {
    const [a, b] = [values[small], values[large]]
    return (small === measure || large === measure) && a !== undefined && b !== undefined && a > b * share
  })
  if (!broken) return null
  const { small, large } = broken
  return {
    code: 'order',
    sentence: `${say(small, values[small] ?? 0)} at ${nameOf(small)} against ${say(large, values[large] ?? 0)} at ${nameOf(large)}: bodies are rarely so. Measure both again?`,
    blocks: false,
    correction: null,
  }
}

/** Names of the distances calipers are marked at, mm. */
const MARKS: Readonly<Record<number, string>> = { 0.1: 'tenth', 0.2: 'fifth', 0.5: 'half', 1: 'whole' }

/** Lies between two marks of the caliper in use: it cannot have been read so. */
export function betweenMarks({ measure, value, resolutionMm }: SlipEntry): Slip | null {
  if (!resolutionMm || kindOf(measure) !== 'fold') return null
  const marks = Math.round(value / resolutionMm)
  const nearest = Number((marks * resolutionMm).toFixed(1))
  if (Math.abs(nearest - value) < 1e-6) return null
  return {
    code: 'marks',
    sentence: `This caliper reads to the ${MARKS[resolutionMm] ?? `${resolutionMm} mm,`} millimetre: ${say(measure, value)} lies between its marks.`,
    blocks: false,
    correction: { measure, value: nearest, label: say(measure, nearest) },
  }
}
