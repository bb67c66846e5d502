import fc from 'fast-check'

/** Values nobody wants in a text: NUL, halves of characters, controls, marks that turn the writing round, very long. */
export const HOSTILE_TEXTS: readonly string[] = [
  '\u0000',
  'Maren\u0000Osk',
  '\ud800',
  'x\udfff',
  '\u0007\u001b[2J',
  '\t\n\r\u000b',
  '\u202emirror',
  '\ufeff\ufffe',
  "'; drop table client; --",
  '{"__proto__": {"role": "lead"}}',
  '😀'.repeat(60),
  'İstanbul ß ﬀ',
  'x'.repeat(5000),
]

/** Days and instants at the ends of what can be written. */
export const HOSTILE_TIMES: readonly string[] = [
  '0000-01-01',
  '0001-01-01',
  '0099-12-31',
  '9999-12-31',
  '+275760-09-13',
  '2026-02-29',
  '0000-01-01T00:00:00.000Z',
  '0001-01-01T00:00:00Z',
  '0099-12-31T23:59:59Z',
  '9999-12-31T23:59:59.999Z',
  '2026-11-24T25:00:00Z',
  '-000001-01-01T00:00:00Z',
]

/** Numbers at the ends of what can be written. */
export const HOSTILE_NUMBERS: readonly number[] = [
  0,
  -0,
  -1,
  1e-320,
  5e-324,
  1e308,
  -1e308,
  2 ** 53,
  2 ** 31,
  0.1 + 0.2,
  3.95,
  1e21,
]

/** Whatever may be put in a field's place. */
export const hostileValue = fc.oneof(
  { weight: 4, arbitrary: fc.constantFrom<unknown>(...HOSTILE_TEXTS, ...HOSTILE_TIMES, ...HOSTILE_NUMBERS) },
  { weight: 2, arbitrary: fc.string({ unit: 'binary', maxLength: 60 }) },
  {
    weight: 1,
    arbitrary: fc.string({ unit: fc.constantFrom('\ud800', '\udc00', '\u0000', 'a', '\t', '\n'), maxLength: 8 }),
  },
  { weight: 1, arbitrary: fc.double() },
  { weight: 1, arbitrary: fc.jsonValue() },
  { weight: 1, arbitrary: fc.date({ noInvalidDate: true }).map((at) => at.toISOString()) },
)

/** Every place of a value that can be replaced, as paths. */
function placesOf(value: unknown, path: readonly string[] = []): string[][] {
  if (typeof value !== 'object' || value === null) return [[...path]]
  const inner = Object.entries(value).flatMap(([key, one]) => placesOf(one, [...path, key]))
  return path.length > 0 ? [[...path], ...inner] : inner
}

function replaced(value: unknown, [key, ...rest]: readonly string[], by: unknown): unknown {
  if (key === undefined) return by
  if (Array.isArray(value)) return value.map((one, i) => (String(i) === key ? replaced(one, rest, by) : one))
  return { ...(value as object), [key]: replaced((value as Record<string, unknown>)[key], rest, by) }
}

/** A body that fits with one place of it replaced by something hostile. */
export function hostileBody(fits: unknown): fc.Arbitrary<unknown> {
  const places = placesOf(fits)
  return fc
    .tuple(fc.nat(Math.max(0, places.length - 1)), hostileValue)
    .map(([place, value]) => replaced(fits, places[place] ?? [], value))
}
