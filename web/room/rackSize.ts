// How large a rack is drawn. The grid of the room (`room.css`) has rows of four pixels and columns of one tank; what turns out
// higher than is reckoned here makes its rows grow, so this only has to be near.

/** How many tanks wide: its name has room in two lines, and it is not wider than a tablet. */
const [leastAcross, mostAcross] = [2, 6]
/** Letters of a rack's name, of what is said of its water, and of a tank's label that fit above one tank. */
const letters = { name: 9, water: 10.5, label: 11.5 }
/** Rows of the grid. */
const rows = { rack: 3, nameLine: 4.5, waterLine: 4.5, tank: 15, labelLine: 3.5 }

/**
 * Reckons how large a rack is drawn.
 * @param labels - what stands below each tank, shelf by shelf.
 * @returns columns and rows of the grid that it spans.
 */
export function rackSize(name: string, waters: readonly string[], labels: readonly (readonly string[])[]): { across: number; rows: number } {
  const across = Math.min(mostAcross, Math.max(leastAcross, Math.ceil(name.length / letters.name / 2), ...labels.map((shelf) => shelf.length)))
  const head = rows.rack + rows.nameLine * linesOf(name, letters.name * across) + rows.waterLine * waters.reduce((sum, water) => sum + linesOf(water, letters.water * across), 0)
  // A shelf longer than the rack is wide goes on below.
  const shelves = labels.flatMap((shelf) => Array.from({ length: Math.ceil(shelf.length / across) }, (_, index) => shelf.slice(index * across, (index + 1) * across)))
  const tanks = shelves.reduce((sum, shelf) => sum + rows.tank + rows.labelLine * Math.max(...shelf.map((label) => linesOf(label, letters.label))), 0)
  return { across, rows: Math.ceil(head + tanks) }
}

/** Lines that words take where so many letters fit beside each other. */
function linesOf(words: string, fit: number): number {
  let [lines, left] = [1, fit]
  for (const word of words.split(' ')) {
    if (word.length > left && left < fit) [lines, left] = [lines + 1, fit]
    left -= word.length + 1
  }
  return lines
}
