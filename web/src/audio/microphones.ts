import { useStorage } from '@vueuse/core'
import { onBeforeUnmount, onMounted, ref } from 'vue'

/** The input that was chosen on this device; empty for the browser's own choice. */
export const chosenMicrophone = useStorage('manudrill microphone', '')

export interface Microphone {
  id: string
  name: string
}

/**
 * The inputs there are. Before the microphone has been allowed a browser tells no names:
 * then there are none.
 */
export function microphonesAmong(
  devices: Pick<MediaDeviceInfo, 'kind' | 'deviceId' | 'label'>[],
): Microphone[] {
  return devices
    .filter((d) => d.kind === 'audioinput' && d.deviceId && d.label)
    .map((d) => ({ id: d.deviceId, name: d.label }))
}

/** Keeps the list of inputs as they are plugged in and out. */
export function useMicrophones() {
  const microphones = ref<Microphone[]>([])
  async function look() {
    const devices = (await navigator.mediaDevices?.enumerateDevices()) ?? []
    microphones.value = microphonesAmong(devices)
  }
  onMounted(() => {
    void look()
    navigator.mediaDevices?.addEventListener('devicechange', look)
  })
  onBeforeUnmount(() => navigator.mediaDevices?.removeEventListener('devicechange', look))
  return { microphones, look }
}

/**
 * Whether the microphone may be opened without asking: it is allowed, and somebody has
 * done something on the page, before which no browser lets sound run.
 */
export async function isAllowed(): Promise<boolean> {
  if (!navigator.userActivation?.hasBeenActive) return false
  try {
    const { state } = await navigator.permissions.query({ name: 'microphone' as PermissionName })
    return state === 'granted'
  } catch {
    return false // a browser that does not tell is asked when Play is pressed
  }
}
