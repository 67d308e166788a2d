import { kindKey } from '../pools/poolsOf'
import type { KindForSale, ReadSaleRow } from './salesView'
import { tanksForSale, type SalePart } from './tanksForSale'

/** What somebody said of a row; left out where they said nothing. */
export interface SaleAnswer {
  /** Key of the kind it is, or that it is no fish. */
  means?: string
  /** The tank it was sold from. */
  tankId?: string
  /** Whether it is booked although one just like it was booked before. */
  isAgain?: boolean
}

export const noFish = 'no fish'

/** A row as it would be booked, or why it cannot be. */
export interface PlannedSale {
  row: ReadSaleRow
  kind: KindForSale | null
  state: 'ready' | 'no fish' | 'booked already' | 'which fish' | 'none here' | 'too few'
  parts: SalePart[]
  /** Fish of this kind that are left in all tanks after the rows before it. */
  left: number
  isHeld: boolean
}

/**
 * Plans the rows of a till's list one after the other: each takes its fish from where the ones before it left them.
 * @param answers - what somebody said, by the key of the row; of a word that stands in several rows once is enough.
 */
export function planSales(rows: readonly ReadSaleRow[], kinds: readonly KindForSale[], answers: ReadonlyMap<string, SaleAnswer>): PlannedSale[] {
  const stock = new Map(kinds.flatMap((kind) => kind.tanks.map(({ tankId, fish }) => [`${kindKey(kind)} ${tankId}`, fish])))
  const said = new Map<string, string>()
  for (const row of rows) {
    const means = answers.get(row.key)?.means
    if (means !== undefined) said.set(row.item.toLowerCase(), means)
  }
  return rows.map((row): PlannedSale => {
    const means = said.get(row.item.toLowerCase()) ?? (row.means === null ? null : row.means === noFish ? noFish : kindKey(row.means))
    const nothing = { row, kind: null, parts: [], left: 0, isHeld: false }
    if (row.isBooked && !answers.get(row.key)?.isAgain) return { ...nothing, state: 'booked already' }
    if (means === null) return { ...nothing, state: 'which fish' }
    if (means === noFish) return { ...nothing, state: 'no fish' }
    const kind = kinds.find((each) => kindKey(each) === means) ?? null
    if (!kind) return { ...nothing, state: 'none here' }
    const tanks = kind.tanks.map((tank) => ({ ...tank, fish: stock.get(`${means} ${tank.tankId}`) ?? 0 }))
    const left = tanks.reduce((sum, { fish }) => sum + fish, 0)
    const parts = tanksForSale(tanks, row.count, answers.get(row.key)?.tankId ?? null)
    if (!parts) return { ...nothing, kind, left, state: 'too few' }
    for (const { tankId, quantity } of parts) stock.set(`${means} ${tankId}`, (stock.get(`${means} ${tankId}`) ?? 0) - quantity)
    return { row, kind, parts, left, state: 'ready', isHeld: parts.some(({ tankId }) => tanks.find((tank) => tank.tankId === tankId)?.isHeld) }
  })
}
