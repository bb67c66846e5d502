/** Practice without a client. */
export const DRILL_IDS = ['find-site', 'read-dial', 'count', 'call-write', 'whole-client'] as const
export type DrillId = (typeof DRILL_IDS)[number]

/** What a drill trains and how it is scored. */
export interface DrillFacts {
  id: DrillId
  name: string
  about: string
  /** Unit of the score, and how many digits it is shown with. */
  unit: 'cm' | 'mm' | 's' | '%'
  digits: number
  better: 'less' | 'more'
  /** A round this good, three times running, leads to the next level; by level. */
  passes: readonly number[]
}

export const DRILLS: Readonly<Record<DrillId, DrillFacts>> = {
  'find-site': {
    id: 'find-site',
    name: 'Find the site',
    about: 'Press for the bony points, then point to the mark. Scored by the miss.',
    unit: 'cm',
    digits: 1,
    better: 'less',
    passes: [1.2, 1, 0.8, 0.6, 0.5],
  },
  'read-dial': {
    id: 'read-dial',
    name: 'Read the dial',
    about: 'The needle settles and creeps. Type what it says two seconds after full pressure.',
    unit: 'mm',
    digits: 1,
    better: 'less',
    passes: [1, 0.8, 0.6, 0.5, 0.4],
  },
  count: {
    id: 'count',
    name: 'Count',
    about: 'Press when two seconds have passed. Nothing shows them.',
    unit: 's',
    digits: 2,
    better: 'less',
    passes: [0.4, 0.3, 0.25, 0.2, 0.15],
  },
  'call-write': {
    id: 'call-write',
    name: 'Call and write',
    about: 'Eight values are called. Write each down, and question the odd ones.',
    unit: '%',
    digits: 0,
    better: 'more',
    passes: [75, 85, 85, 100, 100],
  },
  'whole-client': {
    id: 'whole-client',
    name: 'A whole client',
    about:
      'The stand-in caliper on somebody whose folds are known, on the log sheet. Truth beside readings afterwards.',
    unit: '%',
    digits: 1,
    better: 'less',
    passes: [8, 7, 6, 5, 4],
  },
}

export const MOST_LEVEL = 5

/**
 * The level of the next round: up after three rounds running that passed, down after three that missed by twice.
 * @param rounds at the level now, oldest first
 */
export function nextLevel(drill: DrillId, level: number, rounds: readonly number[]): number {
  const { passes, better } = DRILLS[drill]
  const pass = passes[level - 1] ?? 0
  const last = rounds.slice(-3)
  if (last.length < 3) return level
  const passed = (score: number) => (better === 'less' ? score <= pass : score >= pass)
  const far = (score: number) => (better === 'less' ? score > 2 * pass : score < pass / 2)
  if (last.every(passed)) return Math.min(MOST_LEVEL, level + 1)
  if (last.every(far)) return Math.max(1, level - 1)
  return level
}
