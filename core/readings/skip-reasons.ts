/** Why a site is left out, by the id that is stored; `other`: in words of one's own. */
export const SKIP_REASONS = {
  'cannot-be-lifted': 'cannot be lifted',
  'prefers-not': 'the client prefers not',
  covered: 'dressing, wound or strap in the way',
  'no-time': 'no time today',
  other: '',
} as const

export type SkipReason = keyof typeof SKIP_REASONS

export const SKIP_REASON_IDS = Object.keys(SKIP_REASONS) as [SkipReason, ...SkipReason[]]

/** A reason as it is stored. */
export interface Why {
  reason: SkipReason
  /** In words of one's own; empty for a known reason. */
  words?: string
}

/**
 * A reason as it is said.
 * @example sayWhy({ reason: 'no-time' }) // 'no time today'
 */
export function sayWhy({ reason, words = '' }: Why): string {
  return SKIP_REASONS[reason] || words
}

/** A reason out of words: one of the known ones by its id or its sentence, else one's own. */
export function whyOf(text: string): Required<Why> {
  const known = SKIP_REASON_IDS.find((id) => id !== 'other' && (id === text || SKIP_REASONS[id] === text))
  return known ? { reason: known, words: '' } : { reason: 'other', words: text }
}
