import sharp from 'sharp'
import { fieldProblem, Problem } from '../http/problem'

export interface Picture {
  jpeg: Buffer
  widthPx: number
  heightPx: number
}

const mostPx = 1600
/** A picture of more points is refused before it is unpacked: a small file may unfold into gigabytes. */
const mostInputPixels = 50_000_000
const kinds = ['jpeg', 'png', 'webp'] as const

/**
 * Reads a picture by its content, whatever it is called, and makes it anew: upright, at most 1,600 points a side, as
 * JPEG, without anything else that was in the file (place, camera, comments).
 * @throws Problem when it is no JPEG, PNG or WebP picture, or is broken.
 */
export async function readPicture(base64: string): Promise<Picture> {
  const bytes = Buffer.from(base64, 'base64')
  const kind = await kindOf(bytes)
  if (!kinds.some((each) => each === kind)) throw fieldProblem('image', kind === 'heif' ? 'This is a HEIF picture; set the camera to JPEG, or take the picture from this page' : 'This is no picture that can be kept; take a JPEG, PNG or WebP')
  try {
    const { data, info } = await sharp(bytes, { limitInputPixels: mostInputPixels, failOn: 'error' })
      .rotate()
      .resize({ width: mostPx, height: mostPx, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true })
    return { jpeg: data, widthPx: info.width, heightPx: info.height }
  } catch (error) {
    throw new Problem('invalid-input', 'The picture is broken or too large; take it again', { errors: [{ path: 'image', message: 'The picture is broken or too large; take it again' }], cause: error })
  }
}

/** What a picture is by its content; null for what is none. */
async function kindOf(bytes: Buffer): Promise<string | null> {
  // Nothing at all is refused with a throw of its own.
  if (bytes.length === 0) return null
  return sharp(bytes, { limitInputPixels: mostInputPixels })
    .metadata()
    .then(({ format }) => format, () => null)
}
