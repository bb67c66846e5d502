import { spanOfRecord, type FollowedRecord, type FollowedSpan } from '#shared/followed-record'

type Asked = Parameters<typeof spanOfRecord>

/** Spans kept: as many as a jaw passes on its way through a long history and back. */
const KEPT = 500

/** `spanOfRecord` that keeps what it has found of one record: a jaw drawn back and forth passes the same spans again. */
export function spansSeen() {
  const seen = new Map<string, FollowedSpan>()
  let of: FollowedRecord | null = null
  return (record: FollowedRecord, ends: NonNullable<Asked[1]>, settings: NonNullable<Asked[2]>): FollowedSpan => {
    if (of !== record || seen.size >= KEPT) seen.clear()
    of = record
    const key = JSON.stringify([ends.fromId, ends.toId, settings.massUnit, settings.running, settings.judged])
    const known = seen.get(key)
    if (known) return known
    const found = spanOfRecord(record, ends, settings)
    seen.set(key, found)
    return found
  }
}
