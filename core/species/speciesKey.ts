/** A species' name as names are compared: case and spacing do not matter. */
export const speciesKey = (name: string): string => name.trim().toLowerCase().replace(/\s+/g, ' ')
