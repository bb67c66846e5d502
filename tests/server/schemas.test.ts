import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import type { z } from 'zod'
import { parsed } from '../../server/http/body'
import {
  habitsInput,
  ownUnitsInput,
  setupInput,
  signInInput,
  staffInput,
  studioInput,
} from '../../shared/schemas/account'
import { caliperCheckInput, caliperInput } from '../../shared/schemas/caliper'
import {
  checkinChange,
  eventsInput,
  readingInput,
  remarkInput,
  skipInput,
  startCheckinInput,
  strikeInput,
} from '../../shared/schemas/checkin'
import { newClientInput } from '../../shared/schemas/client'
import { choiceInput, weighInInput, weighInsInput } from '../../shared/schemas/following'
import { alignmentInput } from '../../shared/schemas/photo'
import { planInput } from '../../shared/schemas/plan'
import type { FieldProblem } from '../../shared/schemas/problem'
import { someClient, someReading } from '../support/api'

const id = uuid()
const at = '2026-11-20T17:00:00.000Z'
const weighIn = { id, day: '2026-11-20', value: 71.4, unit: 'kg', dry: true, source: 'typed' }
const account = { name: 'Runa Bexley', email: 'runa@reedwater.example', password: 'a-long-oar-story' }
const plan = { id, checkinId: id, kind: 'fat', value: 12, perWeek: 0.2, unit: 'kg', byDay: null }

/** Every body a route reads, with one that fits. */
const BODIES: Record<string, { schema: z.ZodType; fits: Record<string, unknown> }> = {
  'sign-in': { schema: signInInput, fits: { email: account.email, password: account.password } },
  'first run': {
    schema: setupInput,
    fits: { ...account, studioName: 'Reedwater', massUnit: 'kg', lengthUnit: 'cm', timeZone: 'Pacific/Auckland' },
  },
  'own units': { schema: ownUnitsInput, fits: { massUnit: 'lb', lengthUnit: null } },
  studio: { schema: studioInput, fits: { name: 'Reedwater', massUnit: 'kg', lengthUnit: 'in', timeZone: 'UTC' } },
  habits: { schema: habitsInput, fits: { skipMarking: true, readback: false, sounds: true, cover: 'first' } },
  coach: { schema: staffInput, fits: { name: account.name, email: account.email, role: 'coach' } },
  caliper: { schema: caliperInput, fits: { id, name: 'Steel, bench', resolutionMm: 0.2 } },
  'caliper check': { schema: caliperCheckInput, fits: { id, checkedOn: '2026-11-01', deviationMm: -0.2 } },
  client: { schema: newClientInput, fits: { ...someClient({ guardianConsent: true }) } },
  'check-in': { schema: startCheckinInput, fits: { id, protocolId: 'laboratory-7', startedAt: at } },
  'change of a check-in': { schema: checkinChange, fits: { finished: true } },
  fold: { schema: readingInput, fits: someReading() },
  girth: { schema: readingInput, fits: someReading({ site: 'waist', value: 78, unit: 'cm' }) },
  weight: { schema: readingInput, fits: someReading({ site: 'weight', value: 157.4, unit: 'lb' }) },
  height: { schema: readingInput, fits: someReading({ site: 'height', value: 174, unit: 'cm' }) },
  strike: { schema: strikeInput, fits: { readingId: id, struckAt: at } },
  'site left out': { schema: skipInput, fits: { id, site: 'chest', reason: 'A graze there.', at } },
  note: { schema: remarkInput, fits: { id, readingId: id, words: 'Skin moist.', at } },
  facts: { schema: eventsInput, fits: { readings: [someReading()], strikes: [], skips: [], remarks: [] } },
  choice: { schema: choiceInput, fits: { id, conversion: 'siri', equationId: null } },
  'weigh-in': { schema: weighInInput, fits: weighIn },
  diary: { schema: weighInsInput, fits: { weighIns: [weighIn, { ...weighIn, id: uuid(), day: '2026-11-21' }] } },
  alignment: { schema: alignmentInput, fits: { x: 0.1, y: -0.2, scale: 1.1 } },
  plan: { schema: planInput, fits: plan },
}
const every = Object.entries(BODIES).map(([name, { schema, fits }]) => [name, schema, fits] as const)

/** What a route would answer: null when the body fits. */
function problemsOf(schema: z.ZodType, body: unknown): FieldProblem[] | null {
  try {
    parsed(schema, body)
    return null
  } catch (error) {
    const { statusCode, data } = error as { statusCode?: number; data?: { fields: FieldProblem[] } }
    expect(statusCode).toBe(422)
    return data?.fields ?? []
  }
}

/** A sentence for a person: begins large, ends in a full stop, and is none of the schema library's own. */
const SENTENCE = /^[\p{Lu}"“].*\.$/su
const LIBRARY = /invalid|expected|too (big|small)|received|unrecognized/i

function expectSentences(problems: readonly FieldProblem[], about: string): void {
  expect(problems.length, about).toBeGreaterThan(0)
  for (const { message } of problems) {
    expect(message, about).toMatch(SENTENCE)
    expect(message, about).not.toMatch(LIBRARY)
  }
}

/** Things no field of any body wants, but for texts where a text is asked for. */
const STRANGE: readonly unknown[] = [{ a: 1 }, [1, 2], NaN, 1e308, -1, 'x'.repeat(5000), '\u0000', true, 17]

describe('the body of every route', () => {
  it.each(every)('%s: one that fits is taken', (_, schema, fits) => {
    expect(problemsOf(schema, fits)).toBeNull()
  })

  it.each(every)('%s: what is not asked for is refused by name', (_, schema, fits) => {
    const problems = problemsOf(schema, { ...fits, isAdmin: true }) ?? []
    expectSentences(problems, 'isAdmin')
    expect(problems.map(({ message }) => message).join(' ')).toContain('isAdmin')
  })

  it.each(every)('%s: no object at all is refused in a sentence', (_, schema) => {
    for (const body of [null, 'text', 12, [], undefined]) expectSentences(problemsOf(schema, body) ?? [], String(body))
  })

  it.each(every)(
    '%s: each field left out or filled with something strange is said there, in a sentence',
    (_, schema, fits) => {
      for (const field of Object.keys(fits)) {
        const { [field]: _left, ...without } = fits
        const missing = problemsOf(schema, without)
        if (missing) {
          expectSentences(missing, `${field} left out`)
          expect(
            missing.map((one) => one.field.split('.')[0]),
            field,
          ).toContain(field)
        }
        for (const strange of STRANGE) {
          const problems = problemsOf(schema, { ...fits, [field]: strange })
          if (!problems) continue
          expectSentences(problems, `${field}: ${JSON.stringify(strange).slice(0, 40)}`)
          // A discriminating field decides what else is looked at: then its own name or another may be said.
          const said = problems.map((one) => one.field.split('.')[0])
          if (field !== 'kind' && field !== 'unit' && field !== 'site') expect(said, field).toContain(field)
        }
      }
    },
  )

  it('is answered, whatever comes', () => {
    const body = fc.oneof(fc.jsonValue(), fc.constantFrom(...every.map(([, , fits]) => fits)))
    fc.assert(
      fc.property(
        fc.constantFrom(...every),
        body,
        fc.jsonValue(),
        fc.nat(),
        ([name, schema, fits], any, value, which) => {
          const fields = Object.keys(fits)
          const changed = { ...fits, [fields[which % fields.length] ?? '']: value }
          for (const one of [any, changed]) {
            const problems = problemsOf(schema, one)
            if (problems) expectSentences(problems, name)
          }
        },
      ),
      { numRuns: 600 },
    )
  })
})

describe('limits of a body', () => {
  const limited: [string, z.ZodType, Record<string, unknown>, Record<string, unknown>, string, RegExp][] = [
    ['a fold thicker than jaws open', readingInput, someReading(), { value: 120 }, 'value', /between .* mm/],
    [
      'a waist of a metre and a half in inches',
      readingInput,
      BODIES.girth?.fits ?? {},
      { value: 300, unit: 'in' },
      'value',
      /Waist/,
    ],
    ['a weight of a tonne', readingInput, BODIES.weight?.fits ?? {}, { value: 2205 }, 'value', /between 20 and 350 kg/],
    [
      'a person of three metres',
      readingInput,
      BODIES.height?.fits ?? {},
      { value: 300 },
      'value',
      /between 90 and 250 cm/,
    ],
    [
      'a check-in of tomorrow',
      startCheckinInput,
      BODIES['check-in']?.fits ?? {},
      { startedAt: '2150-01-01T00:00:00.000Z' },
      'startedAt',
      /still to come/,
    ],
    [
      'an unknown protocol',
      startCheckinInput,
      BODIES['check-in']?.fits ?? {},
      { protocolId: 'wishful-9' },
      'protocolId',
      /protocol/,
    ],
    [
      'conditions nobody knows',
      startCheckinInput,
      BODIES['check-in']?.fits ?? {},
      { conditions: { moon: 'full' } },
      'conditions',
      /not known/,
    ],
    [
      'a birth date to come',
      newClientInput,
      BODIES.client?.fits ?? {},
      { birthDate: '2999-01-01' },
      'birthDate',
      /still to come/,
    ],
    [
      'a birth date of another age',
      newClientInput,
      BODIES.client?.fits ?? {},
      { birthDate: '1789-07-14' },
      'birthDate',
      /before 1900/,
    ],
    ['a weigh-in of pounds in kilograms', weighInInput, weighIn, { value: 720 }, 'value', /between 20 and 350/],
    [
      'two weigh-ins on a day',
      weighInsInput,
      {},
      { weighIns: [weighIn, { ...weighIn, id: uuid() }] },
      'weighIns',
      /one weigh-in/,
    ],
    [
      'a password of three letters',
      setupInput,
      BODIES['first run']?.fits ?? {},
      { password: 'oar' },
      'password',
      /at least 12/,
    ],
    ['an address without its at', staffInput, BODIES.coach?.fits ?? {}, { email: 'runa.example' }, 'email', /such as/],
    [
      'marks a caliper does not have',
      caliperInput,
      BODIES.caliper?.fits ?? {},
      { resolutionMm: 0.3 },
      'resolutionMm',
      /marked/,
    ],
    ['a plan in stones', planInput, plan, { unit: 'st' }, 'unit', /not known/],
    ['a percent in kilograms', planInput, plan, { kind: 'percent' }, 'unit', /not set in this unit/],
  ]

  it.each(limited)('refuses %s', (_, schema, fits, change, field, words) => {
    const problems = problemsOf(schema, { ...fits, ...change }) ?? []
    expect(problems.find((one) => one.field === field)?.message).toMatch(words)
    expectSentences(problems, field)
  })

  it('takes text as it is meant: trimmed, addresses in small letters', () => {
    const { email, name } = parsed(staffInput, {
      ...BODIES.coach?.fits,
      email: ' Runa@Reedwater.example ',
      name: '  Runa ',
    })
    expect([email, name]).toEqual(['runa@reedwater.example', 'Runa'])
  })

  it('fills in what may be left out', () => {
    const started = parsed(startCheckinInput, { id, protocolId: 'navy-tape', startedAt: at })
    expect(started).toMatchObject({ assessorId: null, caliperId: null, conditions: {}, withHeight: false })
    expect(parsed(eventsInput, { readings: [], strikes: [] })).toEqual({
      readings: [],
      strikes: [],
      skips: [],
      remarks: [],
    })
    expect(parsed(caliperInput, { id, name: 'Travel' }).resolutionMm).toBe(0.5)
  })
})
