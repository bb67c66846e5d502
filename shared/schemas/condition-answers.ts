import { z } from 'zod'
import { answerIds, type Condition } from '../../core/composition/conditions'

/** Answers to known conditions as they are stored, by id; a device that has not been renewed may send their names. */
export function conditionAnswers(known: readonly Condition[]) {
  return z.record(z.string(), z.string()).transform((given, context): Record<string, string> => {
    const answers = answerIds(known, given)
    if (answers) return answers
    context.addIssue({ code: 'custom', message: 'These conditions are not known.' })
    return z.NEVER
  })
}
