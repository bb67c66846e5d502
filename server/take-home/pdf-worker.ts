import { parentPort } from 'node:worker_threads'
import { takeHomeDocument } from './document'
import { takeHomeFacts, type TakeHomeRequest } from './facts'
import { printPdf } from './print'

/** A page asked for, and its answer: the PDF with its last day, or null when there is nothing to take home yet. */
export interface PdfAsked {
  id: number
  request: TakeHomeRequest
}
export type PdfAnswer =
  { id: number; pdf: Uint8Array; day: string } | { id: number; pdf: null } | { id: number; failed: string }

// A page takes half a second to three: it is composed and printed here, so that nobody else waits for it.
parentPort?.on('message', async ({ id, request }: PdfAsked) => {
  const answer = (given: PdfAnswer) => parentPort?.postMessage(given)
  try {
    const facts = takeHomeFacts(request)
    if (facts) answer({ id, pdf: await printPdf(takeHomeDocument(facts)), day: facts.to })
    else answer({ id, pdf: null })
  } catch (error) {
    answer({ id, failed: error instanceof Error ? `${error.name} ${error.stack?.split('\n')[1] ?? ''}` : 'failed' })
  }
})
