import { z } from 'zod'
import { answers, type Condition } from '../../core/composition/conditions'
import { conditionAnswers } from './condition-answers'
import { instant } from './dates'

export const POSES = ['front', 'side', 'back'] as const
export type Pose = (typeof POSES)[number]

/** What has to be the same at each photograph, the recommended answer first (common practice). */
export const PHOTO_CONDITIONS: readonly Condition[] = [
  { id: 'clothing', label: 'Clothes', options: answers({ same: 'same as ever', other: 'other' }) },
  { id: 'place', label: 'Place', options: answers({ usual: 'ergometer wall', elsewhere: 'elsewhere' }) },
  { id: 'light', label: 'Light', options: answers({ room: 'room light', daylight: 'daylight', mixed: 'mixed' }) },
  {
    id: 'distance',
    label: 'Distance',
    options: answers({ 'at-the-mark': 'at the mark', nearer: 'nearer', farther: 'farther' }),
  },
]

const id = z.uuid('This needs an id made by the device.')

/** What comes with a photograph, in the address of the request; its body is the picture itself. */
export const photoQuery = z.object({
  id,
  pose: z.enum(POSES, { error: 'Say whether it shows the front, a side or the back.' }),
  takenAt: instant,
  conditions: z
    .string()
    .max(500)
    .default('{}')
    .transform((text, context) => {
      const read = conditionsSchema.safeParse(safeJson(text))
      if (read.success) return read.data
      context.addIssue({ code: 'custom', message: 'These conditions are not known.' })
      return z.NEVER
    }),
})

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}

const conditionsSchema = conditionAnswers(PHOTO_CONDITIONS)

const part = (low: number, high: number) => z.number().min(low).max(high)

/** How a photograph lies over the others: shifted by shares of its width and height, and enlarged. */
export const alignmentInput = z.strictObject({ x: part(-1, 1), y: part(-1, 1), scale: part(0.5, 2) })
export type Alignment = z.output<typeof alignmentInput>

/** Where a picture is, for one session and a minute. */
export interface PictureAddress {
  address: string
}

/** A photograph as the client page knows it; the picture itself is where /api/photos/<id>/address says. */
export interface Photo {
  id: string
  checkinId: string
  pose: Pose
  width: number
  height: number
  takenAt: string
  conditions: Record<string, string>
  alignment: Alignment
}
