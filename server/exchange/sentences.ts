import { HeaderProblem } from '../../exchange/header'
import { ArchiveRefused } from '../../exchange/archive/manifest'
import { ZipRefused } from '../../exchange/archive/zip-in'
import { TableRefused } from '../../exchange/table/cells'
import { FhirRefused } from '../../exchange/fhir/refused'
import { PhotoBroken } from '../ports/sealed-photos'
import { KeyRefused } from '../sealed/keys'
import { SealBroken } from '../sealed/sealed-file'
import { DamageFound } from './backup-checks'
import { Stopped } from './progress'
import { NotClean } from './store-incoming'
import { CannotTakeBack } from './take-back'

const SAID = [
  HeaderProblem,
  ArchiveRefused,
  ZipRefused,
  TableRefused,
  FhirRefused,
  KeyRefused,
  SealBroken,
  PhotoBroken,
  Stopped,
  NotClean,
  CannotTakeBack,
  DamageFound,
]

/** The sentence of a failure that a person can act on; null for a fault of the application. */
export function sentenceOf(error: unknown): string | null {
  return SAID.some((kind) => error instanceof kind) ? (error as Error).message : null
}
