/** Name of the format, written into every packing list; see docs/formats.md. */
export const packingListFormat = 'daily-crate/packing-list'
