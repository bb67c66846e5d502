import { FLAGS } from '#core/cautions'
import { formatHeight, type LengthUnit } from '#core/units'
import type { Client, ClientInput } from '#shared/schemas/client'

const LABELS: Record<keyof ClientInput, string> = {
  name: 'Name',
  sex: 'Sex for the equations',
  birthDate: 'Birth date',
  heightCm: 'Height',
  usualSide: 'Side measured',
  notes: 'Notes',
  consentOn: 'Agreed to be measured on',
  guardianConsent: 'A guardian agrees',
  guardianName: 'Guardian',
  guardianConsentOn: 'Guardian agreed on',
  guardianPhotoConsentOn: 'Guardian agreed to photographs on',
  preparation: 'Preparation',
  flags: 'To mind',
  athlete: 'Athlete',
  ancestry: 'Population group',
  photoConsentOn: 'Agreed to be photographed on',
}

function said(field: keyof ClientInput, record: ClientInput, unit: LengthUnit): string {
  const value = record[field]
  if (field === 'flags')
    return (
      record.flags
        .map((flag) => FLAGS[flag])
        .sort()
        .join('; ') || 'nothing'
    )
  if (field === 'heightCm' && record.heightCm !== null)
    return formatHeight(record.heightCm, { mass: 'kg', length: unit })
  if (field === 'preparation' && record.preparation)
    return `for ${record.preparation.day}, cleared by ${record.preparation.clearedBy} until ${record.preparation.clearedUntil}`
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  return value === null || value === '' ? 'not on record' : String(value)
}

/** Every field in which two records of a client differ, in words. */
export function recordDifferences(stored: Client, mine: ClientInput, unit: LengthUnit) {
  return (Object.keys(LABELS) as (keyof ClientInput)[])
    .map((field) => ({ field, label: LABELS[field], stored: said(field, stored, unit), mine: said(field, mine, unit) }))
    .filter((one) => one.stored !== one.mine)
}
