import type { NeutralLeaveInput } from '../../shared/schemas/following'
import type { Transaction } from '../db/database'
import { neutralLeave } from '../db/schema'
import { storeOnce } from '../write/same-again'
import type { SignedIn } from './staff'

/** Notes why somebody looks past a client's neutral mode, under an id made by the device. Throws IdTaken. */
export function addNeutralLeave(
  tx: Transaction,
  who: SignedIn,
  clientId: string,
  { id, reason }: NeutralLeaveInput,
): Promise<number> {
  return storeOnce(
    tx,
    neutralLeave,
    neutralLeave.id,
    [{ id, clientId, reason, leftBy: who.staffId }],
    ['clientId', 'reason'],
  )
}
