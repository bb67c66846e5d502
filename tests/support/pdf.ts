import { createRequire } from 'node:module'
import { pathToFileURL } from 'node:url'

/** The words of each page of a PDF. */
export async function wordsOf(bytes: Buffer): Promise<string[]> {
  const file = createRequire(import.meta.url).resolve('pdfjs-dist/legacy/build/pdf.mjs')
  const { getDocument } = (await import(pathToFileURL(file).href)) as typeof import('pdfjs-dist')
  const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise
  const texts: string[] = []
  for (let number = 1; number <= pdf.numPages; number += 1) {
    const { items } = await (await pdf.getPage(number)).getTextContent()
    texts.push(
      items
        .map((item) => ('str' in item ? item.str : ''))
        .join('')
        .replace(/\s+/g, ' '),
    )
  }
  return texts
}
