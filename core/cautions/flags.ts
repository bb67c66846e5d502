/** What a client's record can say that changes how they are measured, shown or advised, as the form asks it. */
export const FLAGS = {
  'eating-disorder': 'Eating disorder, now or in the past, or signs of one',
  'neutral-wish': 'Wishes no numbers about their body',
  pregnant: 'Pregnant, or recently so',
  breastfeeding: 'Breastfeeding, first six months',
  'implanted-device': 'Implanted device',
  'abnormal-limb': 'Right limb abnormal: always the left',
  'missed-periods': 'Missed or irregular periods for three months',
  'stress-fracture': 'Stress fracture',
  fainting: 'Fainting',
  'diabetes-medication': 'Diabetes with tablets or insulin',
  'appetite-medication': 'Medication that lowers appetite',
  'prescriber-agreed': 'The prescriber agrees to a deficit (note who and when)',
  'kidney-disease': 'Kidney disease',
  dialysis: 'Dialysis',
  anticoagulants: 'Anticoagulants, or bleeds easily',
  'lymphoedema-right': 'Right side: lymphoedema, operated breast or armpit',
  'lymphoedema-left': 'Left side: lymphoedema, operated breast or armpit',
  swelling: 'Steroids, or swelling',
  'breastfeeding-later': 'Breastfeeding, after six months',
  surgery: 'Recent surgery at a site',
  'skin-condition': 'Skin condition at a site',
} as const

export type Flag = keyof typeof FLAGS

/** What is asked of everybody; the others are behind one press. */
export const SHORT_FLAGS: readonly Flag[] = [
  'eating-disorder',
  'neutral-wish',
  'pregnant',
  'breastfeeding',
  'implanted-device',
  'abnormal-limb',
]

/** The side of the body that is not measured; null: both may be. */
export function barredSide(flags: readonly Flag[]): 'left' | 'right' | 'both' | null {
  const right = flags.includes('lymphoedema-right')
  const left = flags.includes('lymphoedema-left')
  return right && left ? 'both' : right ? 'right' : left ? 'left' : null
}
