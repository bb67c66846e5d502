import { HeaderProblem } from '../../exchange/header'
import { ArchiveRefused } from '../../exchange/archive/manifest'
import { ZipRefused } from '../../exchange/archive/zip-in'
import { TableRefused } from '../../exchange/table/cells'
import { FhirRefused } from '../../exchange/fhir/refused'
import { PhotoBroken } from '../ports/sealed-photos'
import { KeyRefused } from '../sealed/keys'
import { SealBroken } from '../sealed/sealed-file'
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
]

/** The sentence of a failure that is somebody's to put right; null for one of ours. */
export function sentenceOf(error: unknown): string | null {
  return SAID.some((kind) => error instanceof kind) ? (error as Error).message : null
}
