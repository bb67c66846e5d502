import { sql } from 'drizzle-orm'
import type { AnyColumn } from 'drizzle-orm'
import type { Reading } from '../../core/readings'
import { reading, strike } from '../db/schema'

/** Milliseconds since 1970, written by the database; nothing where there is no instant. */
function milliseconds(column: AnyColumn) {
  return sql`coalesce(round(extract(epoch from ${column}) * 1000)::text, '')`
}

/**
 * A check-in's readings as one text, a line a reading, its columns between tabs; none of them can hold a tab. A history
 * has thousands, which as rows, or as JSON built in the database, take three times as long.
 */
export const readingLines = sql<string>`string_agg(concat_ws(E'\t', ${reading.id}, ${reading.site}, ${reading.round},
  ${reading.value}, ${reading.unit}, ${milliseconds(reading.takenAt)}, ${reading.source},
  coalesce(${reading.method}, ''), ${milliseconds(strike.struckAt)}), E'\n' order by ${reading.takenAt}, ${reading.id})`

const instant = (ms: string) => new Date(Number(ms)).toISOString()

/** The readings of such a text, in its order, each with the moment it was struck. */
export function readReadingLines(lines: string): (Reading & { struckAt: string | null })[] {
  return lines.split('\n').map((line) => {
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
}
