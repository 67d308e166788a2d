import sharp from 'sharp'

/** Draws a tied bag with so many dead fish in it, as a picture from a camera would come: JPEG in base64. */
export async function drawBag(dead: number): Promise<string> {
  const fish = Array.from({ length: dead }, (_, index) => `<g transform="translate(${250 + index * 150} ${520 + (index % 2) * 30}) rotate(${170 + index * 20})"><ellipse rx="60" ry="18" fill="#b98a5a"/><path d="M50 0 L85 -18 L85 18 Z" fill="#b98a5a"/><circle cx="-42" cy="-4" r="4" fill="#12302b"/></g>`)
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="640" height="800"><rect width="640" height="800" fill="#d9cdb8"/><path d="M290 60 h60 l20 70 c120 60 150 200 150 340 c0 190 -60 270 -200 270 s-200 -80 -200 -270 c0 -140 30 -280 150 -340 z" fill="#e9ece4" stroke="#8c8a7c" stroke-width="4"/><path d="M128 420 c60 -14 320 -14 384 0 c6 220 -40 312 -192 312 s-198 -92 -192 -312 z" fill="#b9d0bd" opacity="0.85"/>${fish.join('')}<rect x="286" y="110" width="68" height="16" fill="#d4500f"/></svg>`
  return (await sharp(Buffer.from(svg)).jpeg({ quality: 80 }).toBuffer()).toString('base64')
}
