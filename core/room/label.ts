/** Codes of tanks as they are stuck to the glass. */
const tankCode = /^[A-Z][A-Z0-9-]{0,11}$/

/**
 * What stands in the code of a label: an address, so that any phone opens the tank, with the code of the tank at its end.
 * @example labelText('http://192.168.1.20:4310', 'R1-05') // 'http://192.168.1.20:4310/t/R1-05'
 */
export const labelText = (origin: string, code: string): string => `${origin}/t/${encodeURIComponent(code)}`

/**
 * Reads the code of a tank from what was scanned or typed: a label printed under whatever address, or the code itself.
 * @returns the code as it stands on the glass; null where it is none of ours.
 * @example readLabel('http://192.168.1.20:4310/t/R1-05') // 'R1-05'
 * @example readLabel(' r1-05 ') // 'R1-05'
 */
export function readLabel(read: string): string | null {
  const last = /\/t\/([^/?#]+)$/.exec(read.trim())?.[1]
  const said = (last === undefined ? read : safeDecode(last)).trim().toUpperCase()
  return tankCode.test(said) ? said : null
}

function safeDecode(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}

/** A label to be printed. */
export interface Label {
  code: string
  /** What stands below the code: the system, and where the tank stands. */
  words: string
}

/** A sheet of A4 has so many labels, of 70 by 37 mm. */
export const labelSheet = { across: 3, down: 8, widthMm: 70, heightMm: 37 } as const
