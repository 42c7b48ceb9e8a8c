import { defineStore } from 'pinia'
import { useLocalStorage } from '@vueuse/core'
import { computed, shallowRef } from 'vue'

export type KeyEntry = { key: string; what: string }

/** The single keys of the page that is open, and whether they act at all (WCAG 2.1.4). */
export const useKeys = defineStore('keys', () => {
  const enabled = useLocalStorage('rain-barrel-keys', true)
  const entries = shallowRef<KeyEntry[]>([])
  const listed = computed(() => [...entries.value].sort((a, b) => a.key.localeCompare(b.key)))
  const add = (entry: KeyEntry) => {
    entries.value = [...entries.value, entry]
  }
  const remove = (entry: KeyEntry) => {
    entries.value = entries.value.filter(e => e !== entry)
  }
  return { enabled, listed, add, remove }
})
