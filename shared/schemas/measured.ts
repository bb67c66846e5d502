import { z } from 'zod'
import { GIRTHS, type GirthSiteId } from '../../core/sites'
import { lengthToCm, massToKg, WEIGHT_RANGE_KG } from '../../core/units'

const { low, high } = WEIGHT_RANGE_KG

/** A weight within what a person can weigh, in either unit. */
export function weightWithin<Schema extends z.ZodType<{ value: number; unit: 'kg' | 'lb' }>>(schema: Schema) {
  return schema.refine(({ value, unit }) => massToKg(value, unit) >= low && massToKg(value, unit) <= high, {
    path: ['value'],
    message: `A weight lies between ${low} and ${high} kg.`,
  })
}

/** A girth within its place's own range, in either unit. */
export function girthWithin<Schema extends z.ZodType<{ site: GirthSiteId; value: number; unit: 'cm' | 'in' }>>(
  schema: Schema,
) {
  return schema.superRefine(({ site, value, unit }, context) => {
    const { rangeCm, name } = GIRTHS[site]
    const cm = lengthToCm(value, unit)
    if (cm >= rangeCm.low && cm <= rangeCm.high) return
    context.addIssue({
      code: 'custom',
      path: ['value'],
      message: `${name} lies between ${rangeCm.low} and ${rangeCm.high} cm.`,
    })
  })
}
