import { onKeyStroke } from '@vueuse/core'
import type { KeyEntry } from '../stores/keys'
import { onMounted, onUnmounted } from 'vue'
import { useKeys } from '../stores/keys'

const inField = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))

/** Keys of a page that act where the focus is, for the list under `?`. */
export function useListedKeys(entries: readonly KeyEntry[]): void {
  const keys = useKeys()
  onMounted(() => entries.forEach(keys.add))
  onUnmounted(() => entries.forEach(keys.remove))
}

/** A single key that acts while the page is open, outside fields, unless switched off; listed under `?`. */
export function useSingleKey(key: string, act: (event: KeyboardEvent) => void, what: string): void {
  const keys = useKeys()
  const entry = { key, what }
  onMounted(() => keys.add(entry))
  onUnmounted(() => keys.remove(entry))
  onKeyStroke(key, event => {
    if (!keys.enabled || event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented || inField(event.target)) return
    event.preventDefault()
    act(event)
  })
}
