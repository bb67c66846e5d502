import { existsSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import pdfmake from 'pdfmake'
import type { TDocumentDefinitions } from 'pdfmake/interfaces'

const FILES = 'atkinson-hyperlegible-next-latin'

/** The fonts stand beside the built server, and in the packages for development and tests. */
function fontFile(weight: 400 | 700): string {
  const name = `${FILES}-${weight}-normal.woff`
  const folders = [
    join(dirname(process.env.OAK_PINCH_SERVER ?? process.argv[1] ?? ''), 'fonts'),
    resolve('.output/server/fonts'),
    resolve('node_modules/@fontsource/atkinson-hyperlegible-next/files'),
  ]
  const found = folders.map((folder) => join(folder, name)).find(existsSync)
  if (!found) throw new Error(`The font ${name} is missing.`)
  return found
}

let ready = false

/** A document may read its own two fonts and nothing else, neither from the disk nor from the network. */
function prepare(): void {
  const [normal, bold] = [fontFile(400), fontFile(700)]
  pdfmake.setFonts({ Text: { normal, bold, italics: normal, bolditalics: bold } })
  pdfmake.setLocalAccessPolicy((path) => path === normal || path === bold)
  pdfmake.setUrlAccessPolicy(() => false)
  ready = true
}

/** Prints a document as PDF. */
export function printPdf(document: TDocumentDefinitions): Promise<Buffer> {
  if (!ready) prepare()
  return pdfmake.createPdf(document).getBuffer()
}
