import type { FoldDirection, Site } from '#core/sites'

/** How far a site has come: each state has a shape of its own, not only a colour. */
export type MarkState = 'to-come' | 'next' | 'now' | 'once' | 'agreed' | 'disputed' | 'left-out' | 'marked'

/** One site as the figure shows it. */
export interface SiteMark {
  site: Site
  state: MarkState
}

/** What each state is called where the figure explains itself. */
export const MARK_WORDS: Record<MarkState, string> = {
  now: 'now',
  next: 'next',
  'to-come': 'to come',
  once: 'read once',
  agreed: 'agreed',
  disputed: 'measure again',
  'left-out': 'left out',
  marked: 'marked',
}

/** Direction of the fold's crest on the figure, degrees clockwise from upright, for the client's right side. */
const ANGLES: Record<FoldDirection, Record<'front' | 'back', number>> = {
  vertical: { front: 0, back: 0 },
  'along-limb': { front: 4, back: -4 },
  horizontal: { front: 90, back: 90 },
  // Front view: the client's right is on the left of the picture, so "in" runs to the right.
  'down-and-in': { front: -45, back: 45 },
  'down-and-out': { front: 45, back: -45 },
}

/** Angle of a site's fold as drawn, mirrored with the figure for people measured on the left. */
export function foldAngle(site: Site, mirrored: boolean): number {
  // A tape runs level round the body.
  const angle = site.kind === 'girth' ? 90 : ANGLES[site.direction][site.figure.view]
  return mirrored ? -angle : angle
}
