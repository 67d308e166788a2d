/** When a lot came into the house; for lots of nothing but corrections, when it was begun. */
export const arrivedAt = `coalesce((SELECT a.happened_at_ms FROM movement a WHERE a.lot_id = lot.id AND a.kind IN ('arrive', 'born') ORDER BY a.happened_at_ms LIMIT 1), lot.created_at_ms)`

/** Strain of a lot, by its line or as it was entered; null where nobody said. */
export const strainOf = `nullif(coalesce(line.strain, lot.strain), '')`
