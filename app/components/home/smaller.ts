/** Longest edge a photograph leaves the phone with, pixels. */
const LONGEST = 1600

/**
 * A photograph made small enough to send, on the phone itself, turned as it is held.
 * @throws with a plain sentence when it is none
 */
export async function smaller(picture: Blob): Promise<Blob> {
  const bitmap = await createImageBitmap(picture, { imageOrientation: 'from-image' }).catch(() => {
    throw new Error('This could not be read as a photograph. Please take it here, or choose a JPEG, PNG or WebP.')
  })
  const shrink = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(bitmap.width * shrink))
  canvas.height = Math.max(1, Math.round(bitmap.height * shrink))
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  bitmap.close()
  const made = await new Promise<Blob | null>((give) => canvas.toBlob(give, 'image/jpeg', 0.88))
  if (!made) throw new Error('This phone could not make the photograph smaller. Please take it here instead.')
  return made
}
