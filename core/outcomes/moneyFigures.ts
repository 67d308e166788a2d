/** One line of a packing list in money: what came of its fish. */
export interface MoneyLine {
  supplier: string
  billed: number
  /** In the house's currency; null when nobody said. */
  priceEach: number | null
  deadInBag: number
  missing: number
  wrong: number
  /** Lost within a week of opening, and after it. */
  lostFirst: number
  lostLater: number
  /** Alive on day 14, or sold alive before. */
  alive: number
}

export interface MoneyClaim {
  supplier: string
  state: 'draft' | 'sent' | 'settled'
  claimed: number
  settled: number | null
}

export interface SupplierMoney {
  supplier: string
  paid: number
  inBag: number
  missing: number
  wrong: number
  firstDays: number
  later: number
  claimed: number
  settled: number
  open: number
  /** Below 0: more was granted than claimed. */
  refused: number
  borne: number
  notClaimed: number
  /** Fish lost, missing or wrong on lines without a price. */
  unpricedFish: number
  /** What a living fish really cost; null without any. */
  perLiving: number | null
}

/** Cents, half away from nothing; binary fractions of a price are forgiven. */
const cents = (money: number): number => {
  const whole = Math.round(Math.abs(money) * 100 + 1e-7)
  return whole === 0 ? 0 : (Math.sign(money) * whole) / 100
}

/** What losses cost, by supplier and over all: lines with a price only, one currency. Source: docs/outcomes.md. */
export function moneyFigures({ lines, claims }: { lines: readonly MoneyLine[]; claims: readonly MoneyClaim[] }): { suppliers: SupplierMoney[]; total: SupplierMoney } {
  const names = [...new Set([...lines, ...claims].map(({ supplier }) => supplier))].sort()
  const of = (name: string) => ({ lines: lines.filter(({ supplier }) => supplier === name), claims: claims.filter(({ supplier }) => supplier === name) })
  return { suppliers: names.map((name) => moneyOf(name, of(name).lines, of(name).claims)), total: moneyOf('all', lines, claims) }
}

function moneyOf(supplier: string, lines: readonly MoneyLine[], claims: readonly MoneyClaim[]): SupplierMoney {
  const sum = (of: (line: MoneyLine) => number): number => lines.reduce((total, line) => total + (line.priceEach === null ? 0 : of(line) * line.priceEach), 0)
  const claim = (of: (each: MoneyClaim) => number): number => claims.reduce((total, each) => total + of(each), 0)
  const [inBag, missing, wrong, firstDays, later] = [sum((l) => l.deadInBag), sum((l) => l.missing), sum((l) => l.wrong), sum((l) => l.lostFirst), sum((l) => l.lostLater)]
  const [claimed, settled, open] = [claim((c) => (c.state === 'draft' ? 0 : c.claimed)), claim((c) => (c.state === 'settled' ? (c.settled ?? 0) : 0)), claim((c) => (c.state === 'sent' ? c.claimed : 0))]
  const paid = sum((line) => line.billed)
  const alive = lines.reduce((total, line) => (line.priceEach === null ? total : total + line.alive), 0)
  const unpriced = lines.filter(({ priceEach }) => priceEach === null)
  return {
    ...{ supplier, paid: cents(paid), inBag: cents(inBag), missing: cents(missing), wrong: cents(wrong), firstDays: cents(firstDays), later: cents(later) },
    ...{ claimed: cents(claimed), settled: cents(settled), open: cents(open), refused: cents(claimed - settled - open) },
    borne: cents(inBag + missing + wrong + firstDays + later - settled),
    notClaimed: cents(claim((c) => (c.state === 'draft' ? c.claimed : 0))),
    unpricedFish: unpriced.reduce((total, line) => total + line.deadInBag + line.missing + line.wrong + line.lostFirst + line.lostLater, 0),
    perLiving: alive > 0 ? cents((paid - settled) / alive) : null,
  }
}
