import { sql } from 'drizzle-orm'
import type { AnyColumn } from 'drizzle-orm'
import type { Reading } from '../../core/readings'
import { reading, strike } from '../db/schema'

/** Seconds since 1970, written by the database; nothing where there is no instant. */
function seconds(column: AnyColumn) {
  return sql`coalesce(date_part('epoch', ${column})::text, '')`
}

/**
 * A check-in's readings as one text in no order, a line a reading, its columns between tabs; none of them can hold a
 * tab. A history has thousands, which as rows, or as JSON built in the database, take four times as long.
 */
export const readingLines = sql<string>`string_agg(concat_ws(E'\t', ${reading.id}, ${reading.site}, ${reading.round},
  ${reading.value}, ${reading.unit}, ${seconds(reading.takenAt)}, ${reading.source},
  coalesce(${reading.method}, ''), ${seconds(strike.struckAt)}), E'\n')`

const instant = (seconds: string) => new Date(Math.round(Number(seconds) * 1000)).toISOString()

type ReadingFact = Reading & { struckAt: string | null }

const byTakenAt = (a: ReadingFact, b: ReadingFact) =>
  a.takenAt === b.takenAt ? (a.id < b.id ? -1 : 1) : a.takenAt < b.takenAt ? -1 : 1

/** The readings of such a text in the order they were taken, each with the moment it was struck. */
export function readReadingLines(lines: string): ReadingFact[] {
  const read = lines.split('\n').map((line) => {
    const [id = '', site, round, value, unit, takenAt = '', source, method, struckAt] = line.split('\t')
    return {
      id,
      site: site as Reading['site'],
      round: Number(round),
      value: Number(value),
      unit: unit as Reading['unit'],
      takenAt: instant(takenAt),
      source: source as Reading['source'],
      method: (method || null) as Reading['method'],
      struckAt: struckAt ? instant(struckAt) : null,
    }
  })
  return read.sort(byTakenAt)
}
