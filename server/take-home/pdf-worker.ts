import { parentPort } from 'node:worker_threads'
import { assessorDocument, type AssessorFacts } from './assessor'
import type { TakeHomeRequest } from './facts'
import { printPdf } from './print'
import { printRequest, type PrintedPage } from './print-request'
import { protocolDocument, type ProtocolFacts } from './protocol'

/** A page asked for, and its answer: the PDF with its last day, or null when there is nothing to take home yet. */
export type PdfAsked = { id: number } & (
  | { request: TakeHomeRequest }
  | { protocol: ProtocolFacts }
  | { assessor: AssessorFacts }
)
export type PdfAnswer =
  | { id: number; pdf: Uint8Array; day: string }
  | { id: number; pdf: null }
  | { id: number; failed: string }

async function print(asked: PdfAsked): Promise<PrintedPage | { pdf: null }> {
  if ('protocol' in asked)
    return { pdf: await printPdf(protocolDocument(asked.protocol)), day: asked.protocol.challenge.endsOn }
  if ('assessor' in asked) return { pdf: await printPdf(assessorDocument(asked.assessor)), day: asked.assessor.day }
  return (await printRequest(asked.request)) ?? { pdf: null }
}

// A page takes half a second to three: it is composed and printed here, so that nobody else waits for it.
parentPort?.on('message', async (asked: PdfAsked) => {
  const { id } = asked
  const answer = (given: PdfAnswer) => parentPort?.postMessage(given)
  try {
    answer({ id, ...(await print(asked)) })
  } catch (error) {
    answer({ id, failed: error instanceof Error ? `${error.name} ${error.stack?.split('\n')[1] ?? ''}` : 'failed' })
  }
})
