import { create } from 'qrcode'

/** A QR code as ISO/IEC 18004 has it, level M, its text as bytes; with the quiet zone of four modules that readers ask for. */
export function QrCode({ text, label }: { text: string; label: string }) {
  const { modules } = create([{ data: new TextEncoder().encode(text), mode: 'byte' }], { errorCorrectionLevel: 'M' })
  const size = modules.size + 8
  const dark = Array.from({ length: modules.size * modules.size }, (_, index) => index).filter((index) => modules.data[index])
  const path = dark.map((index) => `M${(index % modules.size) + 4} ${Math.floor(index / modules.size) + 4}h1v1h-1z`).join('')
  return (
    <svg className="qr-code" role="img" aria-label={label} viewBox={`0 0 ${size} ${size}`} shapeRendering="crispEdges">
      <rect width={size} height={size} fill="#fff" />
      <path d={path} fill="#000" />
    </svg>
  )
}
