import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { toString } from 'qrcode'
import { labelSheet, labelText, type Label } from '../../core/room/label'
import { writePdf } from '../writePdf'

/** Labels for tanks, and the address that their codes lead to. */
export interface LabelPaper {
  room: string
  origin: string
  labels: Label[]
}

const ptPerMm = 72 / 25.4

/** Writes labels as PDF, on sheets to be cut or of stickers: the code as text and as a QR code. */
export async function labelsPdf({ room, origin, labels }: LabelPaper): Promise<Buffer> {
  const drawn = await Promise.all(labels.map(async (label) => oneLabel(label, await toString(labelText(origin, label.code), { type: 'svg', errorCorrectionLevel: 'M', margin: 4 }))))
  return writePdf(document(room, drawn))
}

function document(room: string, labels: readonly Content[]): TDocumentDefinitions {
  const { across, heightMm, widthMm } = labelSheet
  const rows = Array.from({ length: Math.ceil(labels.length / across) }, (_, index) => [...labels.slice(index * across, (index + 1) * across), ...Array.from({ length: across }, (): Content => '')].slice(0, across))
  return {
    info: { title: `Labels, ${room}`, author: room },
    pageSize: 'A4',
    pageMargins: [0, 0.5 * ptPerMm, 0, 0],
    defaultStyle: { font: 'Roboto', fontSize: 9 },
    content: [{ table: { widths: Array.from({ length: across }, () => widthMm * ptPerMm), heights: heightMm * ptPerMm, body: rows }, layout: { defaultBorder: false, paddingLeft: () => 0, paddingRight: () => 0, paddingTop: () => 0, paddingBottom: () => 0, hLineWidth: () => 0, vLineWidth: () => 0 } }],
  }
}

const oneLabel = ({ code, words }: Label, svg: string): Content => ({
  columns: [
    { svg, width: 29 * ptPerMm },
    { width: '*', stack: [{ text: code, fontSize: code.length > 7 ? 15 : 22, bold: true }, { text: words, fontSize: 8, margin: [0, 3, 0, 0] }], margin: [4, 9 * ptPerMm, 4, 0] },
  ],
  margin: [3 * ptPerMm, 4 * ptPerMm, 0, 0],
})
