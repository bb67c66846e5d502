import type { SiteId, WayId } from '../sites'

/** How a reading came in. */
export const SOURCES = ['pad', 'keyboard', 'caliper', 'scale', 'recorder', 'paper', 'import', 'simulated'] as const
export type Source = (typeof SOURCES)[number]

/** What a reading measures: a site, or one of the two body measures taken before them. */
export type MeasureId = SiteId | 'weight' | 'height'

/** Unit as entered. Folds are always mm. */
export type ReadingUnit = 'mm' | 'kg' | 'lb' | 'cm' | 'in'

/** An immutable fact: one value, read once. Never edited; a wrong one is struck. */
export interface Reading {
  /** Made by the device that took it, so that sending twice changes nothing. */
  id: string
  site: MeasureId
  /** Round the device believed it was in, from 1. */
  round: number
  value: number
  unit: ReadingUnit
  /** ISO 8601 instant. */
  takenAt: string
  source: Source
  /** How the fold was lifted, where a site has several ways (FoldSite.ways). */
  method?: WayId | null
}

/** The fact that a reading does not count any more. */
export interface Strike {
  readingId: string
  struckAt: string
}

/** A note at one reading: a fact of its own, like a strike. */
export interface Remark {
  id: string
  readingId: string
  words: string
  at: string
}

/** A reading with whether it has been struck: what a log sheet shows. */
export interface LoggedReading extends Reading {
  struck: boolean
}

function inOrder(a: Reading, b: Reading): number {
  return a.takenAt < b.takenAt ? -1 : a.takenAt > b.takenAt ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0
}

/**
 * Joins readings and strikes into one log: each reading once, oldest first, whatever the order or repetition of delivery.
 * A strike whose reading has not arrived yet waits without effect.
 */
export function joinLog(readings: readonly Reading[], strikes: readonly Strike[]): LoggedReading[] {
  const struck = new Set(strikes.map((strike) => strike.readingId))
  const once = new Map(readings.map((reading) => [reading.id, reading]))
  return [...once.values()].sort(inOrder).map((reading) => ({ ...reading, struck: struck.has(reading.id) }))
}
