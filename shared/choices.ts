import { DEFAULT_CHOICES, type Choices } from '../core/composition/facts'
import type { ChoiceInput } from './schemas/following'

/** A client's choices with a change, as they are recorded: everything else stays what it was. */
export function choiceOf(choices: Choices = DEFAULT_CHOICES, change: Partial<Choices> = {}): Omit<ChoiceInput, 'id'> {
  const { conversion, equationId, militaryRounding, blackAthleteTerm, abdomenOfTwo, activity } = {
    ...choices,
    ...change,
  }
  return {
    conversion,
    equationId,
    militaryRounding: militaryRounding ?? false,
    blackAthleteTerm: blackAthleteTerm ?? false,
    ...(abdomenOfTwo ? { abdomenOfTwo } : {}),
    ...(activity ? { activity } : {}),
  }
}
