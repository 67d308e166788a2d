import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { monthName } from '../../core/time/monthName'
import type { ReviewView } from '../../core/outcomes/outcomeViews'
import { percent } from '../../core/outcomes/monthlyFigures'
import { notADiagnosis } from '../../core/outcomes/causeHints'
import { writePdf } from '../writePdf'

/** Everything a monthly sheet says on paper. */
export interface ReviewPaper {
  room: string
  review: ReviewView
}

/** Writes the sheet of a month: page one its figures, each with how sure it is, page two what stands behind them. */
export const reviewPdf = (paper: ReviewPaper): Promise<Buffer> => writePdf(reviewDocument(paper))

const soft = '#55695f'
const heading = (text: string): Content => ({ text, fontSize: 13, bold: true, margin: [0, 14, 0, 4] })

function reviewDocument({ room, review }: ReviewPaper): TDocumentDefinitions {
  const { month, figures, ranks, alarms, trial, likeness, dispersion, today } = review
  return {
    info: { title: `Losses, ${monthName(month)}`, author: room },
    defaultStyle: { font: 'Roboto', fontSize: 10 },
    pageMargins: [48, 48, 48, 48],
    footer: (page, pages) => ({ text: `${room} · ${monthName(month)} · made ${today} · page ${page} of ${pages}`, alignment: 'center', fontSize: 8, margin: [0, 16, 0, 0] }),
    content: [
      { text: `Losses, ${monthName(month)}`, fontSize: 18, bold: true },
      { text: `${room}. The crate is what is counted as independent, never the fish; every figure says how sure it is.`, color: soft, margin: [0, 2, 0, 10] },
      {
        table: { widths: ['*', 'auto'], body: figures.map(({ sentence, word }) => [{ text: sentence }, { text: word, alignment: 'right', color: soft, noWrap: true }]) },
        layout: 'lightHorizontalLines',
      },
      { text: 'Sold fish were the fit ones: after the hold this is survival of unsold fish. A month with few looks has few late gaspers.', color: soft, margin: [0, 8, 0, 0] },
      { text: 'Suppliers', fontSize: 13, bold: true, pageBreak: 'before', margin: [0, 0, 0, 4] },
      rankTable(ranks),
      heading('Alarms'),
      ...(alarms.alarms.length + alarms.answered.length === 0 ? [{ text: 'None.' }] : [...alarms.alarms.map(({ sentence }) => ({ text: sentence })), ...alarms.answered.map(({ stream, on, found, by }) => ({ text: `${on}, ${stream.replace(/^[a-z]+:/, '')}: ${found} (${by})` }))]),
      heading('Trial'),
      { text: trial ?? 'None.' },
      heading('Measured here'),
      { text: `Likeness of crate mates: ${likeness.measured.toFixed(2)} over ${likeness.crates} crates; the house goes by ${likeness.house}.` },
      { text: dispersion.measured === null ? 'How unevenly losses fall on days: not measured.' : `How unevenly losses fall on days: ${dispersion.measured.toFixed(2)} times their mean; the house goes by ${dispersion.house}.` },
      { text: notADiagnosis, color: soft, margin: [0, 14, 0, 0] },
    ],
  }
}

function rankTable(ranks: ReviewView['ranks']): Content {
  if (ranks.length === 0) return { text: 'Nothing to rank yet.' }
  const head = ['Supplier', 'Crates', 'Lost, drawn towards all', 'Place', 'How sure'].map((text) => ({ text, bold: true }))
  return {
    table: {
      headerRows: 1,
      widths: ['*', 'auto', 'auto', 'auto', 'auto'],
      body: [head, ...ranks.map(({ group, crates, mean, low, high, rankLow, rankHigh, word }) => [group, String(crates), `${percent(mean)} (${percent(low)} to ${percent(high)})`, rankLow === rankHigh ? String(rankLow) : `${rankLow} to ${rankHigh}`, word])],
    },
    layout: 'lightHorizontalLines',
  }
}
