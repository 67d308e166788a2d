import { expose } from 'comlink'
import jsQR from 'jsqr'

/** Looks for a QR code in a picture; null where there is none. */
const codeReader = { read: (pixels: Uint8ClampedArray, width: number, height: number): string | null => jsQR(pixels, width, height, { inversionAttempts: 'dontInvert' })?.data ?? null }
export type CodeReader = typeof codeReader
expose(codeReader)
