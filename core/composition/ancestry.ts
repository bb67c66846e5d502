/** Population groups some published equations and conversions were made for; on record only where the client wants it. */
export const ANCESTRIES = ['black', 'hispanic', 'american-indian', 'japanese', 'white', 'other'] as const

export type Ancestry = (typeof ANCESTRIES)[number]
