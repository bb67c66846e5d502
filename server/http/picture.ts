import { failure } from './failure'

/** Largest photograph taken, bytes. */
export const PHOTO_LIMIT = 25 * 1024 * 1024

/** Longest edge a photograph is kept with, pixels: enough for a screen at twice its size. */
const LONGEST_EDGE = 1600
/** Decoded pixels beyond which a small file is taken for a trap. */
const MOST_PIXELS = 50_000_000

const SIGNS: readonly (readonly [string, (bytes: Buffer) => boolean])[] = [
  ['jpeg', (bytes) => bytes.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff]))],
  ['png', (bytes) => bytes.subarray(0, 4).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47]))],
  ['webp', (bytes) => bytes.toString('latin1', 0, 4) === 'RIFF' && bytes.toString('latin1', 8, 12) === 'WEBP'],
]

/** A photograph as it is kept. */
export interface KeptPicture {
  bytes: Buffer
  width: number
  height: number
}

/**
 * Makes a photograph fit to be kept: turned upright, no longer than 1600 pixels, as JPEG, without any metadata (place,
 * camera, time). Only JPEG, PNG and WebP by their first bytes, whatever the name says.
 * Throws a 4xx with a sentence for anything else.
 */
export async function keptPicture(bytes: Buffer): Promise<KeptPicture> {
  if (!SIGNS.some(([, fits]) => fits(bytes))) {
    throw failure(415, 'This file is not a photograph: please choose a JPEG, PNG or WebP picture.')
  }
  // When the first picture comes: it takes longer to load than most of the application.
  const { default: sharp } = await import('sharp')
  try {
    const { data, info } = await sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
      .rotate()
      .resize({ width: LONGEST_EDGE, height: LONGEST_EDGE, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82, mozjpeg: true })
      .toBuffer({ resolveWithObject: true })
    return { bytes: data, width: info.width, height: info.height }
  } catch (error) {
    if (/pixel limit/i.test(String(error))) {
      throw failure(413, 'This photograph has more than 50 million pixels: please choose a smaller one.')
    }
    throw failure(415, 'This photograph could not be read: it may be damaged. Please choose another one.')
  }
}
