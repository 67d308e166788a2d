import { createRequire } from 'node:module'
import pdfmake from 'pdfmake'
import type { TDocumentDefinitions } from 'pdfmake/interfaces'

const { Roboto } = createRequire(import.meta.filename ?? __filename)('pdfmake/fonts/Roboto.js') as { Roboto: Record<string, string> }
const fontFiles = new Set(Object.values(Roboto))

/** Lays a document out. Nothing but the font and these pictures is read, and nothing is fetched. */
export function writePdf(document: TDocumentDefinitions, pictures: ReadonlySet<string> = new Set()): Promise<Buffer> {
  pdfmake.setFonts({ Roboto })
  pdfmake.setUrlAccessPolicy(() => false)
  pdfmake.setLocalAccessPolicy((path: string) => fontFiles.has(path) || pictures.has(path))
  return pdfmake.createPdf(document).getBuffer()
}
