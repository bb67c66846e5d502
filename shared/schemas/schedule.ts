import { z } from 'zod'
import { CADENCE_RANGE, EVENT_KINDS, PAUSE_REASONS, type EventKind, type PauseReason } from '../../core/schedule/dates'
import { day } from './dates'

const id = z.uuid('This needs an id made by the device.')

/** A day that does not move. */
const fixedEvent = z.strictObject({
  id,
  kind: z.enum(Object.keys(EVENT_KINDS) as [EventKind, ...EventKind[]], { error: 'Say what kind of day it is.' }),
  day: day('Please give the day.'),
  name: z
    .string({ error: 'Please give the event a name.' })
    .trim()
    .min(1, 'Please give the event a name.')
    .max(80, 'A name has at most 80 characters.'),
})

/** A client's cadence, pause and days that do not move. Whether days have gone is asked where the studio is known. */
export const scheduleInput = z.strictObject({
  id,
  cadenceDays: z
    .int({ error: 'A cadence is a whole number of days.' })
    .min(CADENCE_RANGE.low, 'A cadence is a day or more.')
    .max(CADENCE_RANGE.high, 'A cadence is a year at most.')
    .nullable(),
  pause: z
    .strictObject({
      until: day('Until when does measuring rest?'),
      reason: z.enum(Object.keys(PAUSE_REASONS) as [PauseReason, ...PauseReason[]], { error: 'Say why it rests.' }),
    })
    .nullable(),
  events: z.array(fixedEvent).max(20, 'At most twenty events.'),
})
export type ScheduleInput = z.output<typeof scheduleInput>
