const mostPx = 1600
/** Stays below what a request and the browser's own storage take. */
const mostBase64 = 900_000

/**
 * Makes a picture from the camera small enough to be kept on the device and sent: JPEG, at most 1,600 points a side.
 * @returns base64 without its prefix.
 * @throws Error in plain words when the browser cannot read the file as a picture.
 */
export async function shrinkPicture(file: Blob): Promise<string> {
  const bitmap = await createImageBitmap(file).catch(() => {
    throw new Error('This file is no picture that can be read here; take it as JPEG, PNG or WebP')
  })
  try {
    for (const [side, quality] of [[mostPx, 0.8], [mostPx, 0.6], [1000, 0.6], [600, 0.5]] as const) {
      const base64 = drawAsJpeg(bitmap, side, quality)
      if (base64.length <= mostBase64) return base64
    }
  } finally {
    bitmap.close()
  }
  throw new Error('The picture is too large; take it again a little further away')
}

function drawAsJpeg(bitmap: ImageBitmap, side: number, quality: number): string {
  const scale = Math.min(1, side / Math.max(bitmap.width, bitmap.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(bitmap.width * scale))
  canvas.height = Math.max(1, Math.round(bitmap.height * scale))
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  return canvas.toDataURL('image/jpeg', quality).replace(/^data:[^,]*,/, '')
}
