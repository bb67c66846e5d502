import { learnSet } from '../../core/protocols'
import { takeHomeDocument } from './document'
import { takeHomeFacts, type TakeHomeRequest } from './facts'
import { printPdf } from './print'

/** A page to take home, printed. */
export interface PrintedPage {
  pdf: Uint8Array
  /** Its last day. */
  day: string
}

/** Composes and prints the page to take home; null when there is nothing to take home yet. Takes a second of computation. */
export async function printRequest(request: TakeHomeRequest): Promise<PrintedPage | null> {
  for (const set of request.sets ?? []) learnSet(set)
  const facts = takeHomeFacts(request)
  return facts && { pdf: await printPdf(takeHomeDocument(facts)), day: facts.to }
}
