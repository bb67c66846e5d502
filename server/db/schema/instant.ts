import { customType } from 'drizzle-orm/pg-core'

/** timestamptz read back as ISO 8601 with milliseconds, so that instants compare as text everywhere. */
export const instant = customType<{ data: string; driverData: string | Date }>({
  dataType: () => 'timestamp with time zone',
  fromDriver: (value) => new Date(value).toISOString(),
})
