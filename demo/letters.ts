import { mkdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const dayMs = 86_400_000

/** Puts two lists of the invented suppliers into the simulated mailbox: one as JSON, one as CSV with headings of its own. */
export function writeLetters(folder: string, nowMs: number): void {
  rmSync(folder, { recursive: true, force: true })
  mkdirSync(folder, { recursive: true })
  const line = (species: string, bags: number, perBag: number, priceEach: number) => ({ species, count: bags * perBag, bags, perBag, priceEach, origin: 'pond raised' })
  const list = {
    ...{ format: 'daily-crate/packing-list', version: 1, supplier: 'Hollow Reed Hatchery', expectedAt: new Date(nowMs + 2 * dayMs).toISOString(), packedAt: null, note: null },
    lines: [line('Rosy barb', 2, 10, 2.2), line('Peppered corydoras', 2, 6, 3.4), line('Swordtail', 3, 6, 2.6), line('Whiptail catfish', 1, 4, 6.5)],
  }
  const letters: [name: string, text: string][] = [
    ['hollow-reed.json', `${JSON.stringify(list, null, 2)}\n`],
    ['brackwater.csv', 'Latin;Pieces;Bags;Each;Size cm;Eats\nStigmatogobius sadanundio;9;3;7,50;4;frozen larvae\nPseudetroplus maculatus;8;2;5,20;3;granules\nBrachygobius doriae;18;3;2,90;1,5;live foods\n'],
  ]
  for (const [name, text] of letters) {
    writeFileSync(join(folder, name), text)
    utimesSync(join(folder, name), nowMs / 1000, nowMs / 1000)
  }
}
