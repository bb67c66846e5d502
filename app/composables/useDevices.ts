import { useEventListener, useStorage } from '@vueuse/core'
import { onUnmounted, ref, watch } from 'vue'
import { readLine, type DeviceMessage } from '#core/devices'

/** Channel the stand-ins speak on, within one browser. */
export const DEVICE_CHANNEL = 'oak-pinch-devices'

const RECONNECT_MS = 2_000
const REMEMBERED = 200

type Press = Extract<DeviceMessage, { type: 'press' }>

/** Address of a device's own line server on this machine, kept on this device. Empty: none. */
export function useDeviceAddress() {
  return useStorage('oak-pinch-device-address', '')
}

/**
 * Hears connected calipers and scales: stand-ins in this browser, and a local WebSocket where one is set. Each press
 * counts once, however often its line is repeated; lines that are no message are passed over.
 */
export function useDevices(hear: { press: (press: Press) => void }) {
  const address = useDeviceAddress()
  const shown = ref<Extract<DeviceMessage, { type: 'value' }> | null>(null)
  const connected = ref<string | null>(null)
  const pressed: string[] = []
  let socket: WebSocket | null = null
  let again: ReturnType<typeof setTimeout> | undefined

  function take(data: unknown): void {
    for (const line of String(data).split('\n')) {
      const message = readLine(line)
      if (!message) continue
      if (message.type === 'hello') connected.value = message.name
      if (message.type === 'value') shown.value = message
      if (message.type !== 'press' || pressed.includes(message.id)) continue
      pressed.push(message.id)
      if (pressed.length > REMEMBERED) pressed.shift()
      shown.value = null
      hear.press(message)
    }
  }

  const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(DEVICE_CHANNEL)
  if (channel) useEventListener(channel, 'message', (event: MessageEvent) => take(event.data))

  function connect(): void {
    clearTimeout(again)
    socket?.close()
    socket = null
    if (!/^ws:\/\/(localhost|127\.0\.0\.1):\d+/.test(address.value)) return
    const opened = new WebSocket(address.value)
    socket = opened
    opened.onmessage = (event) => take(event.data)
    opened.onclose = () => {
      connected.value = null
      shown.value = null
      if (socket === opened) again = setTimeout(connect, RECONNECT_MS)
    }
  }
  watch(address, connect, { immediate: true })

  /** Tells stand-ins which site is being measured, so that they can show a fold that belongs there. */
  function tellSite(site: string): void {
    channel?.postMessage(JSON.stringify({ type: 'site', site }))
  }

  onUnmounted(() => {
    clearTimeout(again)
    const open = socket
    socket = null
    open?.close()
    channel?.close()
  })

  return { shown, connected, tellSite }
}
