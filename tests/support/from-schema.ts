import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { z } from 'zod'

const TODAY = new Date().toISOString().slice(0, 10)

/** Texts that some field or other takes: each is offered where its schema takes it. */
const TEXTS: readonly string[] = [
  'Maren',
  'The strap moved.',
  'rower@lake.example',
  TODAY,
  '2026-01-10',
  '2027-03-01',
  '1992-03-14',
  `${TODAY}T00:00:01.000Z`,
  '2027-03-01T10:00:00Z',
  '2026-01-10T09:30:00.000Z',
  'UTC',
  'Pacific/Auckland',
  '4719',
  '123456',
  'copper-meadow-violin',
  'laboratory-7',
  'laboratory-3-men',
  'x'.repeat(43),
  'triceps',
  'waist',
  'siri',
  '14.5',
  '7',
  '',
]
const NUMBERS: readonly number[] = [0, 1, 2, 3, 5, 7, 8, 10, 12.5, 14, 20, 30, 60, 71.4, 90, 180, 365, 1000, 2100, -0.5]

/** Zod's own description of a schema, as far as it is walked here. */
interface Def {
  type: string
  shape?: Record<string, z.ZodType>
  element?: z.ZodType
  innerType?: z.ZodType
  options?: z.ZodType[]
  items?: z.ZodType[]
  entries?: Record<string, string | number>
  values?: unknown[]
  keyType?: z.ZodType
  valueType?: z.ZodType
  in?: z.ZodType
  left?: z.ZodType
  right?: z.ZodType
  getter?: () => z.ZodType
}
const defOf = (schema: z.ZodType) => schema._zod.def as unknown as Def

const needed = (schema: z.ZodType | undefined): z.ZodType => {
  if (!schema) throw new Error('A schema without the part its kind has.')
  return schema
}

/** Values of a pool that a schema takes; without any, the pool: the whole is then refused, and counted as that. */
function fitting(schema: z.ZodType, pool: readonly unknown[]): fc.Arbitrary<unknown> {
  const fits = pool.filter((one) => schema.safeParse(one).success)
  return fc.constantFrom(...(fits.length > 0 ? fits : pool))
}

/**
 * Values a schema takes, made from the schema itself: objects with and without what may be left out, lists of a few, texts
 * and numbers of a pool that fit. What a schema asks of several fields together is left to chance.
 * @param ids uuids that mean something where they are sent, beside fresh ones
 */
export function fromSchema(schema: z.ZodType, ids: readonly string[]): fc.Arbitrary<unknown> {
  const def = defOf(schema)
  const within = (one: z.ZodType | undefined) => fromSchema(needed(one), ids)
  switch (def.type) {
    case 'object': {
      const keys = Object.entries(def.shape ?? {})
      const required = keys.filter(([, one]) => !one.safeParse(undefined).success).map(([key]) => key)
      return fc.record(Object.fromEntries(keys.map(([key, one]) => [key, within(one)])), {
        requiredKeys: required,
        noNullPrototype: true,
      })
    }
    case 'array':
      return fc.array(within(def.element), { minLength: 1, maxLength: 3 })
    case 'tuple':
      return fc.tuple(...(def.items ?? []).map((one) => within(one)))
    case 'record':
      return fc.dictionary(within(def.keyType).map(String), within(def.valueType), {
        maxKeys: 2,
        noNullPrototype: true,
      })
    case 'optional':
    case 'default':
    case 'prefault':
    case 'readonly':
    case 'catch':
      return within(def.innerType)
    case 'nullable':
      return fc.oneof({ weight: 3, arbitrary: within(def.innerType) }, { weight: 1, arbitrary: fc.constant(null) })
    case 'union':
      return fc.oneof(...(def.options ?? []).map((one) => within(one)))
    case 'intersection':
      return fc
        .tuple(within(def.left), within(def.right))
        .map(([left, right]) => ({ ...(left as object), ...(right as object) }))
    case 'pipe':
      return within(def.in)
    case 'lazy':
      return within(def.getter?.())
    case 'enum':
      return fc.constantFrom(...Object.values(def.entries ?? {}))
    case 'literal':
      return fc.constantFrom(...(def.values ?? []))
    case 'boolean':
      return fc.boolean()
    case 'null':
      return fc.constant(null)
    case 'number':
      return fitting(schema, NUMBERS)
    case 'string': {
      const fresh = uuid()
      if (!schema.safeParse(fresh).success || schema.safeParse('Maren').success) return fitting(schema, TEXTS)
      return fc.oneof(
        fc.constantFrom(fresh, ...ids),
        fc.constant(null).map(() => uuid()),
      )
    }
    // A field that is refused whenever it is there.
    case 'never':
      return fc.constant(undefined)
    case 'unknown':
    case 'any':
      return fc.constant('Maren')
    default:
      throw new Error(`No values are made of a ${def.type}.`)
  }
}
