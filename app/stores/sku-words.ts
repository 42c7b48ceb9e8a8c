import { defineStore } from 'pinia'
import { namedObject } from '../../core/text/named'
import { skusDescribed, type SkuWords } from '../../shared/contracts/reference-data'
import { client } from '../utils/client'
import { ref } from 'vue'

/** So many codes are asked for at once. */
const AT_ONCE = 5000

/** SKU codes in plain words, as far as anyone has said them. */
export const useSkuWords = defineStore('sku-words', () => {
  const words = ref<Record<string, SkuWords>>(namedObject())
  const asked = new Set<string>()

  /** Learns codes; what is known is not asked for again. */
  async function learn(skus: readonly (string | null | undefined)[], signal?: AbortSignal) {
    const unknown = [...new Set(skus)].filter((sku): sku is string => !!sku && !asked.has(sku)).slice(0, AT_ONCE)
    if (!unknown.length) return
    const found = (await client.send('POST', 'rate-cards/describe', { skus: unknown }, skusDescribed, signal)).skus
    unknown.forEach(sku => asked.add(sku))
    words.value = namedObject(words.value, found)
  }

  /** Own words have changed: everything is asked anew, and what was known of a code is known no more. */
  function forget(sku?: string) {
    asked.clear()
    if (sku !== undefined) words.value = namedObject(Object.fromEntries(Object.entries(words.value).filter(([known]) => known !== sku)))
  }

  return { words, learn, forget }
})
