import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  emptyClient,
  toClientInput,
  typedClient,
  typedClientSchema,
  type TypedClient,
} from '../../app/components/client/typed-client'
import { FLAGS, type Flag } from '../../core/cautions'
import { clientInput, type Client } from '../../shared/schemas/client'
import { someClient } from '../support/api'

const stored = (change: Partial<Client> = {}): Client => ({ ...someClient(), archived: false, version: 1, ...change })

function problems(typed: TypedClient, unit: 'cm' | 'in' = 'cm') {
  const { error } = typedClientSchema(unit).safeParse(typed)
  return Object.fromEntries((error?.issues ?? []).map(({ path, message }) => [path.join('.'), message]))
}

describe('a client in the form', () => {
  it('comes back as stored when nothing was touched, whatever is on record and in either unit', () => {
    const flag = fc.constantFrom(...(Object.keys(FLAGS) as Flag[]))
    const client = fc.record({
      heightCm: fc.option(fc.double({ min: 90, max: 250, noNaN: true })),
      sex: fc.constantFrom('female', 'male'),
      usualSide: fc.constantFrom('right', 'left'),
      athlete: fc.option(fc.boolean()),
      ancestry: fc.option(fc.constantFrom('black', 'white', 'japanese')),
      guardian: fc.option(fc.record({ name: fc.constant('Hild Osk'), on: fc.constant('2026-01-10') })),
      guardianPhotoConsentOn: fc.option(fc.constant('2026-02-10')),
      preparation: fc.option(
        fc.constant({
          day: '2026-05-01',
          begunOn: '2026-01-10',
          clearedBy: 'Dr Elm',
          clearedOn: '2026-01-08',
          clearedUntil: '2026-06-01',
        }),
      ),
      consentOn: fc.option(fc.constant('2026-01-10')),
      photoConsentOn: fc.option(fc.constant('2026-02-10')),
      flags: fc.uniqueArray(flag),
      notes: fc.string(),
    })
    fc.assert(
      fc.property(client, fc.constantFrom('cm', 'in'), (change, unit) => {
        const { guardian, ...rest } = change
        const record = stored({
          ...(rest as Partial<Client>),
          guardianConsent: guardian !== null,
          guardianName: guardian?.name ?? '',
          guardianConsentOn: guardian?.on ?? null,
        })
        const typed = typedClient(record, unit)
        const { id: _, archived: _archived, version: _version, ...input } = record
        expect(toClientInput(typed, unit, { text: typed.height, cm: record.heightCm })).toEqual(input)
      }),
    )
  })

  it('keeps a height that was not touched to the last digit, and reads one that was', () => {
    const record = stored({ heightCm: 173.456789 })
    const typed = typedClient(record, 'cm')
    const kept = { text: typed.height, cm: record.heightCm }
    const of = (height: string, unit: 'cm' | 'in' = 'cm') =>
      (toClientInput({ ...typed, height }, unit, kept) as { heightCm: number | null }).heightCm
    expect(of(typed.height)).toBe(173.456789)
    expect(of('180')).toBe(180)
    expect(of('5 ft 10 in')).toBeCloseTo(177.8, 9)
    expect(of(' ')).toBeNull()
    expect(of('tall')).toBeNull()
  })

  it('withdraws a consent that is no longer ticked, whatever day stands beside it', () => {
    const typed = {
      ...typedClient(stored({ photoConsentOn: '2026-02-10' }), 'cm'),
      consented: false,
      photoConsented: false,
    }
    const input = toClientInput(typed, 'cm', { text: '', cm: null }) as Record<string, unknown>
    expect([input.consentOn, input.photoConsentOn]).toEqual([null, null])
  })

  it('says at each field what is missing or cannot be', () => {
    expect(problems(emptyClient())).toEqual({
      name: 'Please give a name.',
      sex: 'Choose the sex the equations should use.',
      birthDate: 'Please give the birth date.',
    })
    const good: TypedClient = { ...typedClient(stored(), 'cm') }
    expect(problems(good)).toEqual({})
    expect(problems({ ...good, height: 'tall' }).height).toMatch(/height|length/)
    expect(problems({ ...good, height: '5.10' }).height).toMatch(/meant/)
    expect(problems({ ...good, height: '900' }).height).toMatch(/between 90 and 250/)
    expect(problems({ ...good, birthDate: '2999-05-01' }).birthDate).toMatch(/still to come/)
    expect(problems({ ...good, consented: true, consentOn: '' }).consentOn).toMatch(/day of consent/)
    expect(problems({ ...good, notes: 'x'.repeat(4001) }).notes).toMatch(/4,000/)
  })

  it('makes only what the server takes', () => {
    const text = fc.string({ maxLength: 30 })
    fc.assert(
      fc.property(text, text, text, fc.boolean(), (name, birthDate, height, consented) => {
        const typed = { ...typedClient(stored(), 'cm'), name, birthDate, height, consented, consentOn: birthDate }
        if (Object.keys(problems(typed)).length > 0) return
        expect(clientInput.safeParse(toClientInput(typed, 'cm', { text: '', cm: null })).success).toBe(true)
      }),
    )
  })
})
