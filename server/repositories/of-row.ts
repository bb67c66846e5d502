import { getTableName, sql, type SQL } from 'drizzle-orm'
import type { PgColumn } from 'drizzle-orm/pg-core'

/**
 * A column with its table's name before it, for a question within a question: where one table is asked, Drizzle leaves
 * the name away, and the inner question would take the column for its own.
 */
export function ofRow(column: PgColumn): SQL {
  return sql`${sql.identifier(getTableName(column.table))}.${sql.identifier(column.name)}`
}
