import { z } from 'zod'
import { day } from './dates'

const id = z.uuid('There is nothing under this id.')

/** What part of the record is asked for. */
export const recordQuery = z.strictObject({
  staffId: id.optional(),
  clientId: id.optional(),
  kind: z
    .string()
    .regex(/^[a-z.-]{1,40}$/, 'This kind is not known.')
    .optional(),
  day: day('Please give a day.').optional(),
  /** The line the page before ended with. */
  before: id.optional(),
})
export type RecordQuery = z.output<typeof recordQuery>

/** A line of the record: who did what, to whom, when. */
export interface RecordLine {
  id: string
  at: string
  actor: 'staff' | 'link' | 'system'
  /** Name of the person of the studio. */
  by: string | null
  kind: string
  words: string
  clientId: string | null
  client: string | null
  checkinId: string | null
  /** Name of the person it was done to, where it was one of the studio. */
  subject: string | null
}

/** A page of the audit log; `next` is where the next one begins. */
export interface RecordPage {
  lines: RecordLine[]
  next: string | null
  /** Its newest entry and hash, to be noted elsewhere: "1204:9f…"; null: it is empty. */
  end: string | null
}

/** What was noted elsewhere, to be checked against. */
export const recordCheckQuery = z.strictObject({
  noted: z
    .string()
    .trim()
    .regex(/^\d{1,9}:[\da-f]{64}$/, 'This is an entry and its hash, such as 1204:9f2c… with 64 signs after the colon.')
    .transform((text) => {
      const [seq = '', hash = ''] = text.split(':')
      return { seq: Number(seq), hash }
    })
    .optional(),
})

/** What checking the audit log's chain found. */
export interface RecordCheck {
  /** Entries that are as they were written. */
  entries: number
  /** Hash of the last of them. */
  last: string | null
  /** What is wrong, said; null: nothing. */
  fault: string | null
}
