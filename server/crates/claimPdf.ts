import { existsSync } from 'node:fs'
import { TZDate } from '@date-fns/tz'
import { format } from 'date-fns'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { ClaimBag, ClaimLine, ClaimSheet } from '../../core/crates/claim'
import type { CrateView } from '../../core/crates/crateView'
import { writePdf } from '../writePdf'

/** Everything a claim sheet says. */
export interface ClaimPaper {
  room: string
  timeZone: string
  crate: CrateView
  sheet: ClaimSheet
  rules: string | null
  note: string | null
  madeAtMs: number
  /** Files of the pictures by their ids. */
  photoFiles: Record<string, string>
}

/** Writes a claim sheet as PDF: what was ordered and what came, line by line, bag by bag, with its pictures. */
export async function claimPdf(paper: ClaimPaper): Promise<Buffer> {
  const pictures = new Set(Object.values(paper.photoFiles).filter((file) => existsSync(file)))
  return writePdf(claimDocument(paper, (id) => (pictures.has(paper.photoFiles[id] ?? '') ? (paper.photoFiles[id] ?? null) : null)), pictures)
}

function claimDocument({ room, timeZone, crate, sheet, rules, note, madeAtMs }: ClaimPaper, picture: (id: string) => string | null): TDocumentDefinitions {
  const moment = (atMs: number | null): string => (atMs === null ? 'not noted' : format(new TZDate(atMs, timeZone), 'yyyy-MM-dd HH:mm'))
  return {
    info: { title: `Claim, crate ${crate.number}, ${crate.supplier}`, author: room },
    defaultStyle: { font: 'Roboto', fontSize: 10 },
    pageMargins: [40, 40, 40, 48],
    footer: (page, pages) => ({ text: `${room} · crate ${crate.number} · page ${page} of ${pages}`, alignment: 'center', fontSize: 8, margin: [0, 16, 0, 0] }),
    content: [
      { text: `Claim for crate ${crate.number}`, fontSize: 18, bold: true },
      { text: `${room} to ${crate.supplier}`, margin: [0, 0, 0, 8] },
      pairs([
        ['Packed', moment(crate.packedAtMs)],
        ['First bag opened', moment(crate.arrivedAtMs)],
        ['Carrier', crate.carrier ?? 'not noted'],
        ['Box', boxWords(crate)],
        ['Sheet made', `${moment(madeAtMs)} (${timeZone})`],
        ...(rules ? [['Agreed', rules] as [string, string]] : []),
      ]),
      { text: `${sheet.dead} dead, ${sheet.missing} missing${sheet.wrong > 0 ? `, ${sheet.wrong} of another species` : ''}. ${amountWords(sheet)}`, bold: true, margin: [0, 8, 0, 8] },
      ...(note ? [{ text: note, margin: [0, 0, 0, 8] } as Content] : []),
      lineTable(sheet.lines),
      ...sheet.lines.flatMap((line) => bagsOf(line, moment, picture)),
    ],
  }
}

const pairs = (rows: [string, string][]): Content => ({ table: { widths: [90, '*'], body: rows.map(([name, value]) => [{ text: name, color: '#55695f' }, value]) }, layout: 'noBorders' })

const amountWords = ({ amount, unpriced, lines }: ClaimSheet): string => {
  if (lines.length === 0) return 'Nothing to claim.'
  const sum = unpriced < lines.length ? `Claimed: ${amount.toFixed(2)}.` : ''
  return [sum, unpriced > 0 ? `${unpriced} ${unpriced === 1 ? 'line has' : 'lines have'} no price.` : ''].filter(Boolean).join(' ')
}

function boxWords({ box }: CrateView): string {
  if (!box) return 'not noted'
  const words = [
    box.isSound === null ? '' : box.isSound ? 'sound' : 'damaged',
    box.isWet === null ? '' : box.isWet ? 'wet' : 'dry',
    box.packs ? `packs ${box.packs}` : '',
    box.packing ? `packing ${box.packing}` : '',
    box.note ?? '',
  ].filter(Boolean)
  return words.join(', ') || 'not noted'
}

const lineTable = (lines: ClaimLine[]): Content => ({
  table: {
    headerRows: 1,
    widths: ['*', 'auto', 'auto', 'auto', 'auto', 'auto', 'auto'],
    body: [
      ['Species', 'Line', 'Listed', 'Dead', 'Missing', 'Price each', 'Amount'].map((text) => ({ text, bold: true })),
      ...lines.map((line) => [line.species, line.lotCode, ...[line.listed, line.dead, line.missing, line.priceEach ?? '', line.amount === null ? '' : line.amount.toFixed(2)].map((value) => ({ text: String(value), alignment: 'right' as const }))]),
    ],
  },
  layout: 'lightHorizontalLines',
})

function bagsOf({ species, lotCode, bags }: ClaimLine, moment: (atMs: number) => string, picture: (id: string) => string | null): Content[] {
  return [
    { text: `${species} (${lotCode})`, bold: true, margin: [0, 12, 0, 4] },
    ...bags.map((bag): Content => ({ stack: [bagSentence(bag, moment), ...picturesOf(bag, picture)], margin: [0, 0, 0, 6], unbreakable: true })),
  ]
}

function bagSentence({ number, listed, alive, dead, missing, mishap, happenedAtMs, staffName, readings, note }: ClaimBag, moment: (atMs: number) => string): string {
  const found = [`${alive} alive`, `${dead} dead`, missing > 0 ? `${missing} missing` : '', mishap ?? ''].filter(Boolean).join(', ')
  return [`Bag ${number}: ${listed} listed; ${found}.`, `Opened ${moment(happenedAtMs)} by ${staffName}.`, readings.length > 0 ? `${readings.join(', ')}.` : '', note ? `Note: ${note}` : ''].filter(Boolean).join(' ')
}

function picturesOf({ photoIds }: ClaimBag, picture: (id: string) => string | null): Content[] {
  const files = photoIds.map(picture).filter((file) => file !== null)
  return files.length > 0 ? [{ columns: files.map((image) => ({ image, fit: [160, 160] as [number, number] })), columnGap: 8, margin: [0, 4, 0, 0] }] : []
}
