/**
 * What a connected caliper or scale says, one JSON object a line (docs/devices.md).
 * - hello: who it is, once after connecting
 * - value: what it shows now; a scale says whether it has settled
 * - press: its button was pressed at this value; `id` makes a repeated line harmless
 */
export type DeviceMessage =
  | { type: 'hello'; device: 'caliper' | 'scale'; name: string }
  | { type: 'value'; device: 'caliper' | 'scale'; value: number; settled: boolean }
  | { type: 'press'; device: 'caliper' | 'scale'; value: number; id: string }

const UNIT = { caliper: 'mm', scale: 'kg' } as const

/** Longest line that is looked at, characters. */
const LONGEST = 500

function parsed(line: string): Record<string, unknown> | null {
  try {
    const found: unknown = JSON.parse(line)
    return found !== null && typeof found === 'object' && !Array.isArray(found) ? { ...found } : null
  } catch {
    return null
  }
}

/**
 * Reads one line. Anything that is not exactly a message gives null: a device that sends nonsense harms nothing.
 * Values: caliper mm, scale kg.
 */
export function readLine(line: string): DeviceMessage | null {
  const found = line.length <= LONGEST ? parsed(line.trim()) : null
  if (!found) return null
  const { type, device } = found
  if (device !== 'caliper' && device !== 'scale') return null
  if (type === 'hello') {
    return { type, device, name: typeof found.name === 'string' ? found.name.slice(0, 80) : device }
  }
  const value = found[UNIT[device]]
  if (typeof value !== 'number' || !Number.isFinite(value) || value < 0 || value > 1000) return null
  if (type === 'value') return { type, device, value, settled: found.settled !== false }
  if (type !== 'press' || typeof found.id !== 'string' || found.id === '' || found.id.length > 80) return null
  return { type, device, value, id: found.id }
}

/** A message as the line a device sends. */
export function writeLine(message: DeviceMessage): string {
  if (message.type === 'hello') return JSON.stringify(message)
  const { value, ...rest } = message
  return JSON.stringify({ ...rest, [UNIT[message.device]]: value })
}
