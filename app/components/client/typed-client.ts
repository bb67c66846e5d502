import { z } from 'zod'
import type { Flag } from '#core/cautions'
import type { Ancestry } from '#core/composition'
import { formatHeight, lengthToCm, parseHeight, type LengthUnit } from '#core/units'
import { clientInput, type Client, type ClientInput } from '#shared/schemas/client'

/** A client as typed: every field is text or a choice, so that nothing typed is lost by being wrong. */
export interface TypedClient {
  name: string
  sex: 'female' | 'male' | null
  birthDate: string
  height: string
  usualSide: 'right' | 'left'
  notes: string
  consented: boolean
  consentOn: string
  guardianConsent: boolean
  flags: Flag[]
  athlete: 'yes' | 'no' | null
  ancestry: Ancestry | ''
  photoConsentOn: string
  photoConsented: boolean
}

export function emptyClient(): TypedClient {
  const consentOn = ''
  return {
    name: '',
    sex: null,
    birthDate: '',
    height: '',
    usualSide: 'right',
    notes: '',
    consented: false,
    consentOn,
    guardianConsent: false,
    flags: [],
    athlete: null,
    ancestry: '',
    photoConsentOn: '',
    photoConsented: false,
  }
}

/** A stored client as the form shows it, in the person's units. */
export function typedClient(client: Client, unit: LengthUnit): TypedClient {
  return {
    name: client.name,
    sex: client.sex,
    birthDate: client.birthDate,
    height: client.heightCm === null ? '' : formatHeight(client.heightCm, { mass: 'kg', length: unit }),
    usualSide: client.usualSide,
    notes: client.notes,
    consented: client.consentOn !== null,
    consentOn: client.consentOn ?? '',
    guardianConsent: client.guardianConsent,
    flags: client.flags,
    athlete: client.athlete === null ? null : client.athlete ? 'yes' : 'no',
    ancestry: client.ancestry ?? '',
    photoConsentOn: client.photoConsentOn ?? '',
    photoConsented: client.photoConsentOn !== null,
  }
}

function heightCm(text: string, unit: LengthUnit): number | null {
  const parsed = parseHeight(text, unit)
  return parsed.kind === 'value' ? lengthToCm(parsed.value, parsed.unit) : null
}

/**
 * What the form makes of a typed client. `kept` is the stored height with the text it was shown as: left untouched, it
 * is stored again as it was and not as rounded for the screen.
 */
export function toClientInput(
  typed: TypedClient,
  unit: LengthUnit,
  kept: { text: string; cm: number | null },
): unknown {
  const untouched = typed.height === kept.text
  return {
    name: typed.name,
    sex: typed.sex,
    birthDate: typed.birthDate,
    heightCm: typed.height.trim() === '' ? null : untouched ? kept.cm : heightCm(typed.height, unit),
    usualSide: typed.usualSide,
    notes: typed.notes,
    consentOn: typed.consented ? typed.consentOn : null,
    guardianConsent: typed.guardianConsent,
    flags: typed.flags,
    athlete: typed.athlete === null ? null : typed.athlete === 'yes',
    ancestry: typed.ancestry || null,
    photoConsentOn: typed.photoConsented ? typed.photoConsentOn : null,
  } satisfies Record<keyof ClientInput, unknown>
}

/** The form's schema: the shared one, with height as people write it. */
export function typedClientSchema(unit: LengthUnit) {
  return z.custom<TypedClient>().superRefine((typed, context) => {
    const height = typed.height.trim() === '' ? null : parseHeight(typed.height, unit)
    if (height && height.kind !== 'value') {
      context.addIssue({ code: 'custom', path: ['height'], message: height.sentence })
    }
    const shape = clientInput.safeParse({
      ...(toClientInput(typed, unit, { text: '', cm: null }) as object),
      heightCm: null,
    })
    for (const issue of shape.error?.issues ?? []) {
      context.addIssue({ code: 'custom', path: issue.path, message: issue.message })
    }
  })
}
