/** A possible answer, by the id that is stored. */
export interface Answer {
  id: string
  name: string
}

/** One condition of a visit or a photograph with its possible answers, the recommended one first. */
export interface Condition {
  id: string
  label: string
  options: readonly Answer[]
}

/** Answers by the condition's id, as they are stored. */
export type Conditions = Readonly<Record<string, string>>

/** Answers by id, each with how it is said; in the order written. */
export function answers(said: Readonly<Record<string, string>>): Answer[] {
  return Object.entries(said).map(([id, name]) => ({ id, name }))
}

/** What has to be the same at each visit, or a change of water reads as a change of fat (common practice). */
export const CONDITIONS: readonly Condition[] = [
  { id: 'time', label: 'Time of day', options: answers({ morning: 'morning', midday: 'midday', evening: 'evening' }) },
  { id: 'training', label: 'Training', options: answers({ before: 'before training', after: 'after training' }) },
  { id: 'skin', label: 'Skin', options: answers({ dry: 'dry', damp: 'damp or lotion' }) },
  {
    id: 'clothing',
    label: 'Clothing',
    options: answers({ shorts: 'shorts', singlet: 'singlet and shorts', more: 'more' }),
  },
  {
    id: 'food',
    label: 'Food and drink',
    options: answers({ fasting: 'fasting', 'hours-ago': 'hours ago', 'just-before': 'just before' }),
  },
  { id: 'toilet', label: 'Toilet', options: answers({ 'just-before': 'just before', earlier: 'earlier' }) },
]

/** The answer a text means, by its id or its name; null: none. */
export function answerOf({ options }: Condition, text: string): Answer | null {
  return options.find(({ id, name }) => id === text || name === text) ?? null
}

/**
 * Answers as ids, whether they came as ids or as names; null when a condition or an answer is not known.
 * @param known the conditions asked for
 */
export function answerIds(known: readonly Condition[], given: Conditions): Record<string, string> | null {
  const answers = Object.entries(given).map(([key, text]) => {
    const condition = known.find(({ id }) => id === key)
    return [key, condition ? answerOf(condition, text)?.id : undefined] as const
  })
  return answers.every((answer): answer is [string, string] => answer[1] !== undefined)
    ? Object.fromEntries(answers)
    : null
}

/** Conditions that differ from another time, with both answers. Only what both times noted is compared. */
export function conditionChanges(
  then: Conditions,
  now: Conditions,
  known: readonly Condition[] = CONDITIONS,
): { condition: Condition; then: Answer; now: Answer }[] {
  if (then === now || Object.keys(then).length === 0 || Object.keys(now).length === 0) return []
  return known.flatMap((condition) => {
    const [before, after] = [then[condition.id], now[condition.id]].map((id) => answerOf(condition, id ?? ''))
    return before && after && before !== after ? [{ condition, then: before, now: after }] : []
  })
}
