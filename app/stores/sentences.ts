import { defineStore } from 'pinia'
import { useLocalStorage, useSessionStorage } from '@vueuse/core'
import { z } from 'zod'
import { savedSentenceList, type SavedSentence, type SavedSentenceInput } from '../../shared/contracts/spend-settings'
import type { WrittenQuery } from '../../core/spend/sentence-address'
import { ref } from 'vue'
import { client } from '../utils/client'

/** Something asked: its address and how it is called. */
export type AskedSentence = { query: WrittenQuery; title: string }
const MOST_ASKED = 20

/** Sentences kept under a name, those asked lately, and those open side by side. */
export const useSentences = defineStore('sentences', () => {
  const saved = ref<SavedSentence[]>([])
  const recent = useLocalStorage<AskedSentence[]>('rain-barrel-asked', [])
  const open = useSessionStorage<AskedSentence[]>('rain-barrel-open', [])
  const at = useSessionStorage('rain-barrel-open-at', 0)
  /** What was last done with a sentence, to be read once. */
  const told = ref('')

  async function load() {
    saved.value = (await client.get('sentences', savedSentenceList)).sentences
  }
  async function save(input: SavedSentenceInput, id: string = crypto.randomUUID()) {
    await client.send('PUT', `sentences/${encodeURIComponent(id)}`, input, z.object({ id: z.string() }))
    await load()
  }
  async function remove(id: string) {
    await client.send('DELETE', `sentences/${encodeURIComponent(id)}`, {}, z.object({ id: z.string() }))
    await load()
  }
  async function sendNow(id: string) {
    const done = await client.send('POST', `sentences/${encodeURIComponent(id)}/send`, {}, z.object({ said: z.string() }))
    await load()
    return done.said
  }

  const same = (a: AskedSentence, b: AskedSentence) => JSON.stringify(a.query) === JSON.stringify(b.query)
  /** Notes what is looked at: lately, and in the sentence that is open. */
  function note(asked: AskedSentence) {
    recent.value = [asked, ...recent.value.filter(known => !same(known, asked))].slice(0, MOST_ASKED)
    if (at.value >= open.value.length) at.value = Math.max(0, open.value.length - 1)
    if (!open.value.length) open.value = [asked]
    else open.value = open.value.map((known, i) => (i === at.value ? asked : known))
  }
  /** Opens another sentence beside those that are open. @returns its address. */
  function add(asked: AskedSentence): WrittenQuery {
    open.value = [...open.value, asked]
    at.value = open.value.length - 1
    return asked.query
  }
  /** Closes one of the open sentences. @returns the address of the one that is open then; null when it was open before. */
  function close(index: number): WrittenQuery | null {
    open.value = open.value.filter((_, i) => i !== index)
    if (index > at.value) return null
    if (index < at.value) {
      at.value--
      return null
    }
    at.value = Math.max(0, Math.min(index, open.value.length - 1))
    return open.value[at.value]?.query ?? {}
  }

  return { saved, recent, open, at, told, load, save, remove, sendNow, note, add, close }
})
