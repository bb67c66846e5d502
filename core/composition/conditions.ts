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

/** What has to be the same at each visit, or a change of water reads as a change of fat (common practice). */
export const CONDITIONS: readonly Condition[] = [
  {
    id: 'time',
    label: 'Time of day',
    options: [
      { id: 'morning', name: 'morning' },
      { id: 'midday', name: 'midday' },
      { id: 'evening', name: 'evening' },
    ],
  },
  {
    id: 'training',
    label: 'Training',
    options: [
      { id: 'before', name: 'before training' },
      { id: 'after', name: 'after training' },
    ],
  },
  {
    id: 'skin',
    label: 'Skin',
    options: [
      { id: 'dry', name: 'dry' },
      { id: 'damp', name: 'damp or lotion' },
    ],
  },
  {
    id: 'clothing',
    label: 'Clothing',
    options: [
      { id: 'shorts', name: 'shorts' },
      { id: 'singlet', name: 'singlet and shorts' },
      { id: 'more', name: 'more' },
    ],
  },
  {
    id: 'food',
    label: 'Food and drink',
    options: [
      { id: 'fasting', name: 'fasting' },
      { id: 'hours-ago', name: 'hours ago' },
      { id: 'just-before', name: 'just before' },
    ],
  },
  {
    id: 'toilet',
    label: 'Toilet',
    options: [
      { id: 'just-before', name: 'just before' },
      { id: 'earlier', name: 'earlier' },
    ],
  },
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
  return known.flatMap((condition) => {
    const [before, after] = [then[condition.id], now[condition.id]].map((id) => answerOf(condition, id ?? ''))
    return before && after && before !== after ? [{ condition, then: before, now: after }] : []
  })
}
