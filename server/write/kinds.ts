import { CHANGE_WORDS, type RecordedKind } from '../../shared/change-words'

/** Every kind of change there is: those that are recorded, and those too small to be. */
export type ChangeKind =
  | RecordedKind
  | 'password.rehashed'
  | 'session.seen'
  | 'link.counted'
  | 'factor.step'
  | 'device.locked'
  | 'device.opened'
  | 'device-key.made'
  | 'pin.tried'
  | 'passkey.asked'

/** Whether a kind of change leaves a row in the record. */
export function isRecorded(kind: ChangeKind): kind is RecordedKind {
  return kind in CHANGE_WORDS
}

/** Kinds after which anything computed may be another: everything kept is made anew. */
export const CHANGES_ALL: ReadonlySet<ChangeKind> = new Set([
  'data.imported',
  'data.taken-back',
  'archive.imported',
  'client.erased',
])

/** Kinds after which repeats of the studio's check-ins may be others: errors learnt from them are learnt anew. */
export const CHANGES_REPEATS: ReadonlySet<ChangeKind> = new Set([
  'checkin.facts',
  'checkin.finished',
  'checkin.voided',
  'checkin.set',
  'caliper.corrected',
])

/** Kinds after which nothing is another: somebody looked. */
export const LOOKS: ReadonlySet<ChangeKind> = new Set(['client.seen', 'photo.seen', 'record.seen', 'client.exported'])
