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
  guardianName: string
  guardianConsentOn: string
  guardianPhotoConsented: boolean
  guardianPhotoConsentOn: string
  preparing: boolean
  preparationDay: string
  preparationBegunOn: string
  clearedBy: string
  clearedOn: string
  clearedUntil: string
  flags: Flag[]
  athlete: 'yes' | 'no' | null
  ancestry: Ancestry | ''
  photoConsentOn: string
  photoConsented: boolean
}

const NO_GUARDIAN = {
  guardianName: '',
  guardianConsentOn: '',
  guardianPhotoConsented: false,
  guardianPhotoConsentOn: '',
}
const NOT_PREPARING = {
  preparing: false,
  preparationDay: '',
  preparationBegunOn: '',
  clearedBy: '',
  clearedOn: '',
  clearedUntil: '',
}

function typedPreparation(preparation: Client['preparation'] | undefined) {
  if (!preparation) return NOT_PREPARING
  const { day, begunOn, ...clearance } = preparation
  return { preparing: true, preparationDay: day, preparationBegunOn: begunOn, ...clearance }
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
    ...NO_GUARDIAN,
    ...NOT_PREPARING,
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
    // A record kept on the device by an earlier version holds none of these.
    guardianName: client.guardianName ?? '',
    guardianConsentOn: client.guardianConsentOn ?? '',
    guardianPhotoConsented: (client.guardianPhotoConsentOn ?? null) !== null,
    guardianPhotoConsentOn: client.guardianPhotoConsentOn ?? '',
    ...typedPreparation(client.preparation),
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
    guardianName: typed.guardianConsent ? typed.guardianName : '',
    guardianConsentOn: typed.guardianConsent ? typed.guardianConsentOn : null,
    guardianPhotoConsentOn: typed.guardianPhotoConsented ? typed.guardianPhotoConsentOn : null,
    flags: typed.flags,
    athlete: typed.athlete === null ? null : typed.athlete === 'yes',
    ancestry: typed.ancestry || null,
    photoConsentOn: typed.photoConsented ? typed.photoConsentOn : null,
    preparation: typed.preparing
      ? {
          day: typed.preparationDay,
          begunOn: typed.preparationBegunOn,
          clearedBy: typed.clearedBy,
          clearedOn: typed.clearedOn,
          clearedUntil: typed.clearedUntil,
        }
      : null,
  } satisfies Record<keyof ClientInput, unknown>
}

/** Fields of the form for those of a preparation. */
const PREPARATION_FIELDS: Readonly<Record<string, keyof TypedClient>> = {
  day: 'preparationDay',
  clearedBy: 'clearedBy',
  clearedOn: 'clearedOn',
  clearedUntil: 'clearedUntil',
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
      const path =
        issue.path[0] === 'preparation' ? [PREPARATION_FIELDS[String(issue.path[1])] ?? 'preparing'] : issue.path
      context.addIssue({ code: 'custom', path, message: issue.message })
    }
  })
}
