import { createHash } from 'node:crypto'
import type { FigureSeries } from '../../core/following'
import { openingSeries, SHOWN_AT_ONCE } from '../../shared/followed-record'
import type { ClientHistory } from '../../shared/schemas/following'
import { usePorts } from '../ports'

/** Computed openings by client. */
const SHELF = 'openings'

interface Kept {
  /** Of the facts it was computed from. */
  print: string
  opening: FigureSeries | null
}

/** What a long history's chart draws as it opens (`openingSeries`), computed once as long as the history is the same. */
export function openingOf(history: ClientHistory): FigureSeries | null {
  if (history.checkins.length <= SHOWN_AT_ONCE) return null
  const { shelf } = usePorts()
  const print = createHash('sha256').update(JSON.stringify(history)).digest('base64')
  const known = shelf.get<Kept>(SHELF, history.client.id)
  if (known?.print === print) return known.opening
  const opening = openingSeries(history)
  shelf.put(SHELF, history.client.id, { print, opening } satisfies Kept)
  return opening
}
