import { bytesOf, seal, unseal } from './device-key'

/** What a list of this device holds of each: its id and what it is found by in clear, all else sealed. */
export interface SealedRow {
  id: string
  checkinId?: string
  savedAt?: number
  /** Base64, so that the plain storage takes it as well. */
  iv: string
  sealed: string
}

interface Row {
  id: string
  checkinId?: string
  savedAt?: number
}

/** A row as it lies on the device: sealed, or as it is where the browser cannot seal. */
export type Kept<One extends Row> = One | SealedRow

const isSealed = <One extends Row>(row: Kept<One>): row is SealedRow => 'sealed' in row

function textOf(bytes: Uint8Array): string {
  let text = ''
  for (const byte of bytes) text += String.fromCharCode(byte)
  return btoa(text)
}

/** A row as it is put on the device. */
export async function sealRow<One extends Row>(row: One): Promise<Kept<One>> {
  const sealed = await seal(row.id, row).catch(() => null)
  if (!sealed) return row
  const { id, checkinId, savedAt } = row
  return {
    id,
    ...(checkinId === undefined ? {} : { checkinId }),
    ...(savedAt === undefined ? {} : { savedAt }),
    iv: textOf(sealed.iv),
    sealed: textOf(new Uint8Array(sealed.bytes)),
  }
}

/** Rows again, and how many nobody here can read; `plain`: those that lie there as they are, to be sealed. */
export async function openRows<One extends Row>(
  kept: readonly Kept<One>[],
): Promise<{ rows: One[]; plain: One[]; unread: number }> {
  const plain = kept.filter((row): row is One => !isSealed(row))
  let unread = 0
  const opened = await Promise.all(
    kept.map(async (row) => {
      if (!isSealed(row)) return row
      const { iv, sealed } = row
      // Sealed and opened by this module alone: what it is bound to is its id.
      const found = (await unseal(row.id, { iv: bytesOf(iv), bytes: bytesOf(sealed).buffer })) as One | null
      if (!found) unread += 1
      return found
    }),
  )
  return { rows: opened.filter((row): row is Awaited<One> => row !== null), plain, unread }
}
