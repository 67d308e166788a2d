const columns = ['shipping_temp_c', 'shipping_salinity_ppt', 'shipping_ph', 'shipping_alkalinity_meq_l'] as const

/** Whether the list of a crate says what water its fish came out of. */
const isTold = `coalesce(${columns.map((column) => `crate.${column}`).join(', ')}) IS NOT NULL`

/** A figure of the water that fish of a crate came out of: what its own list says, and only where that says nothing what its supplier usually ships in. */
export const shippingOf = (column: (typeof columns)[number]): string => `CASE WHEN ${isTold} THEN crate.${column} ELSE supplier.${column} END`
