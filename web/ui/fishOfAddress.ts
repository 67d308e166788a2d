import { validated } from '../../core/fields/validated'
import { moveCheckSchema, type MovedFish } from '../../core/moves/moves.schema'

/** Which fish an address names already: those chosen before a reload, or on another page; none where it names them wrongly. */
export function fishOfAddress(search: URLSearchParams): MovedFish[] {
  try {
    return validated(moveCheckSchema, { fish: JSON.parse(search.get('fish') ?? '[]') as unknown }).fish
  } catch {
    return []
  }
}
