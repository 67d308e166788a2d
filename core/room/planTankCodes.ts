export interface PlannedTank {
  code: string
  /** Shelf from the top, 1 and up. */
  shelf: number
  /** Place on the shelf from the left, 1 and up. */
  position: number
}

/**
 * Plans the codes and places of a rack's tanks, top shelf first, left to right.
 * @param after - tanks that the rack has already; numbering goes on from there on a new shelf.
 * @throws RangeError when a number is not a positive whole one.
 * @example planTankCodes('R1', 3, 2)[2] // { code: 'R1-03', shelf: 2, position: 1 }
 */
export function planTankCodes(rack: string, tankCount: number, perShelf: number, after = { tanks: 0, shelves: 0 }): PlannedTank[] {
  for (const value of [tankCount, perShelf]) {
    if (!Number.isSafeInteger(value) || value < 1) throw new RangeError(`${value} is not a positive whole number`)
  }
  return Array.from({ length: tankCount }, (_, index) => ({
    code: `${rack}-${String(after.tanks + index + 1).padStart(2, '0')}`,
    shelf: after.shelves + Math.floor(index / perShelf) + 1,
    position: (index % perShelf) + 1,
  }))
}
