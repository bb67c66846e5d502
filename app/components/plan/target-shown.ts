import { numberShown } from '#core/following'
import type { Against, TargetKind } from '#core/plan'
import { formatChange, formatMass, formatMassChange, formatNumber, kgToMass, type Units } from '#core/units'

/** What each kind of target is called. */
export const TARGET_NAMES: Readonly<Record<TargetKind, string>> = {
  percent: 'Percent fat',
  fat: 'Fat mass',
  weight: 'Weight',
  sum: 'Sum of folds',
}

/** How a target's numbers are shown to somebody who reads in these units. */
export function targetShown(kind: TargetKind, units: Units) {
  const mass = kind === 'fat' || kind === 'weight'
  return {
    unit: kind === 'percent' ? '%' : kind === 'sum' ? 'mm' : units.mass,
    /** Percent of a percent is misread: a change of percent is in points. */
    changeUnit: kind === 'percent' ? 'points' : kind === 'sum' ? 'mm' : units.mass,
    scale: (value: number) => (mass ? kgToMass(value, units.mass) : value),
    value: (value: number, decimals = 1) => (mass ? formatMass(value, units, decimals) : formatNumber(value, decimals)),
    change: (value: number) => (mass ? formatMassChange(value, units) : formatChange(value)),
  }
}

/** A standing in words. */
export const STANDINGS: Readonly<Record<Against['standing'], string>> = {
  on: 'on the plan, as far as can be said',
  ahead: 'ahead of the plan',
  behind: 'behind the plan',
}

/** How far off the plan, by the two figures as they are shown. */
export function offShown(
  { measured, planned }: Pick<Against, 'measured' | 'planned'>,
  { value }: Pick<ReturnType<typeof targetShown>, 'value'>,
): string {
  return formatChange(numberShown(value(measured)) - numberShown(value(planned)), 1)
}
