/** Whether digits are a certain PIN. */
export type PinCheck = (digits: string) => Promise<boolean>

/**
 * scrypt with 64 MB a try (RFC 7914): ten thousand four-digit PINs take hours even to somebody who reads this page's
 * memory. The server checks with its own key and at full cost; nothing of what it keeps comes here.
 */
const COST = { N: 2 ** 16, r: 8, p: 1, dkLen: 32 }

/** Makes a check of a PIN; the digits themselves are not kept. */
export async function pinCheckOf(pin: string): Promise<PinCheck> {
  const { scryptAsync } = await import('@noble/hashes/scrypt.js')
  const salt = crypto.getRandomValues(new Uint8Array(16))
  const derive = (digits: string) => scryptAsync(digits, salt, COST)
  const kept = await derive(pin)
  return async (digits) => {
    const made = await derive(digits)
    return made.every((byte, i) => byte === kept[i])
  }
}
