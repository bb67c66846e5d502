/** One condition of a visit with its possible answers, the recommended one first. */
export interface Condition {
  id: string
  label: string
  options: readonly string[]
}

/** What has to be the same at each visit, or a change of water reads as a change of fat (common practice). */
export const CONDITIONS: readonly Condition[] = [
  { id: 'time', label: 'Time of day', options: ['morning', 'midday', 'evening'] },
  { id: 'training', label: 'Training', options: ['before training', 'after training'] },
  { id: 'skin', label: 'Skin', options: ['dry', 'damp or lotion'] },
  { id: 'clothing', label: 'Clothing', options: ['shorts', 'singlet and shorts', 'more'] },
  { id: 'food', label: 'Food and drink', options: ['fasting', 'hours ago', 'just before'] },
  { id: 'toilet', label: 'Toilet', options: ['just before', 'earlier'] },
]

/** Conditions that differ from last time: condition, then and now. Only what both visits noted is compared. */
export function conditionChanges(
  then: Readonly<Record<string, string>>,
  now: Readonly<Record<string, string>>,
): { condition: Condition; then: string; now: string }[] {
  return CONDITIONS.flatMap((condition) => {
    const [before, after] = [then[condition.id], now[condition.id]]
    return before && after && before !== after ? [{ condition, then: before, now: after }] : []
  })
}
