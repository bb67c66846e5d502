/** What a client's record can say that changes how they are measured or shown. */
export const FLAGS = {
  'eating-disorder': 'Eating-disorder history or signs',
  'neutral-wish': 'Wishes no percent and no weight on their pages',
  pregnant: 'Pregnant, or recently so',
  'implanted-device': 'Implanted device',
  'abnormal-limb': 'Right limb abnormal: always the left',
} as const

export type Flag = keyof typeof FLAGS
