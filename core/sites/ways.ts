/** Accepted ways to lift a tight fold, by the id that is stored with a reading. */
export const WAYS = {
  'as-it-is': 'as it is',
  'underside-supported': 'underside supported',
  'leg-straight': 'leg straight',
  'assistant-lifts': 'an assistant lifts with two hands',
} as const

export type WayId = keyof typeof WAYS

export const WAY_IDS = Object.keys(WAYS) as [WayId, ...WayId[]]
