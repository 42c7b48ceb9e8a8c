<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { searchKinds } from '../../../core/estimate/components'
import type { ComponentKind } from '../../../core/estimate/components/kind'
import type { Pattern } from '../../../core/estimate/pattern'
import { findPlace, placeText } from '../../../core/estimate/place'
import { priceEstimate } from '../../../core/estimate/price-estimate'
import { unitWords } from '../../../core/ratecard/meters'
import { upliftsFor } from '../../../core/uplift/uplift-set'
import { evaluate } from '../../../core/working/working'

/** Type plain words, take what is found: a kind of component, a line of the rate card, or a pattern. */
const emit = defineEmits<{ added: [string], pasted: [string] }>()
const store = useEstimate()
const text = ref('')
const at = ref(0)
const open = ref(false)
const chosen = ref<Pattern | null>(null)
const answers = reactive<Record<number, string>>({})

type Found = { key: string, label: string, note: string, take: () => void, own?: string }
const wordsOf = (sought: string) => sought.trim().toLowerCase().split(/\s+/).filter(Boolean)
/** What one of it costs as it begins, own charges included. */
function usualPrice(kind: ComponentKind): string {
  const e = store.estimate!
  const priced = priceEstimate({ ...e, components: [{ id: 'x', part: '', kind: kind.kind, inputs: {}, confirmed: [], note: '', muted: false, pattern: null }], scenarios: [] }, store.prices)
  const way = priced.rows[0]?.chosen
  return way && !kind.last ? `${money(roundText(evaluate(way.effectiveMonthly).toFixed()), store.currency)} as it begins` : ''
}
const found = computed((): Found[] => {
  const kinds = searchKinds(text.value).filter(store.offered).map((kind): Found => ({
    key: kind.kind, label: kind.label, note: [kind.words.slice(0, 3).join(', '), open.value ? usualPrice(kind) : ''].filter(Boolean).join(' · '), take: () => emit('added', store.add(kind)),
    own: upliftsFor(store.uplifts, { kind: kind.kind, variant: null, pattern: null }).map(u => u.name).join(', ') || undefined,
  }))
  const words = wordsOf(text.value)
  const patterns = store.patterns.filter(p => words.every(word => `pattern ${p.name} ${p.description}`.toLowerCase().includes(word))).map((pattern): Found => ({
    key: `pattern ${pattern.id}`, label: pattern.name, note: `pattern · ${pattern.description}`, take: () => startPattern(pattern), own: upliftsFor(store.uplifts, { kind: '', variant: null, pattern: pattern.id }).map(u => u.name).join(', ') || undefined,
  }))
  return [...kinds, ...patterns, ...words.length ? cardLines(words) : []]
})
/** Lines of the rate card that no kind has a form for. */
function cardLines(words: string[]): Found[] {
  const e = store.estimate!
  return [...store.cards.values()].flatMap((card) => {
    const region = card.provider === e.provider ? e.region : card.regions[0]!.id
    if (!findPlace(placeText(card.provider, region, e), e, store.cards)) return []
    return card.prices.filter(line => line.region === region && words.every(word => `${line.service} ${line.variant ?? ''} ${line.meter} ${line.sku}`.toLowerCase().includes(word))).slice(0, 6).map((line): Found => ({
      key: line.sku, label: `${line.service}${line.variant ? ` ${line.variant}` : ''}`, note: `rate card line · ${fullPrice(line.tiers[0]!.price)} ${card.currency} per ${unitWords(line.unit)}`,
      take: () => emit('added', store.add(searchKinds('metered line')[0]!, undefined, { sku: line.sku, ...(placeText(card.provider, region, e) && { where: placeText(card.provider, region, e) }) })),
    }))
  }).slice(0, 8)
}
// the list stands free of the sheet, which scrolls sideways: above the field where there is room, else below it
const box = useTemplateRef<HTMLInputElement>('box')
const above = ref({})
function show() {
  const { left, top, bottom } = box.value!.getBoundingClientRect()
  above.value = top > window.innerHeight - bottom ? { left: `${left}px`, bottom: `${window.innerHeight - top + 4}px`, maxHeight: `${Math.min(430, top - 12)}px` } : { left: `${left}px`, top: `${bottom + 4}px`, maxHeight: `${Math.min(430, window.innerHeight - bottom - 12)}px` }
  open.value = true
}
watch(text, () => {
  at.value = 0
  show()
})
useEventListener('scroll', () => open.value && show(), { passive: true })
function take(index = at.value) {
  const choice = found.value[index]
  if (!choice) return
  choice.take()
  text.value = ''
  open.value = false
}
async function startPattern(pattern: Pattern) {
  chosen.value = pattern
  for (const key of Object.keys(answers)) Reflect.deleteProperty(answers, key)
  await nextTick()
  document.querySelector<HTMLInputElement>('.patternform input')?.focus()
}
function fill() {
  store.addPattern(chosen.value!, { ...Object.fromEntries(chosen.value!.open.map((field, i) => [i, answers[i] ?? field.usual])) })
  chosen.value = null
}
function onPaste(event: ClipboardEvent) {
  const pasted = event.clipboardData?.getData('text/plain') ?? ''
  event.stopPropagation()
  if (!/[\t\n]/.test(pasted.trim())) return
  event.preventDefault()
  emit('pasted', pasted)
}
</script>

<template>
  <div class="adding" @focusout="open = false">
    <input ref="box" v-model="text" class="adder" placeholder="type a component: server, disk, outgoing traffic, relational database… or paste rows of a spreadsheet" aria-label="add a component" role="combobox" :aria-expanded="open" aria-controls="kinds" :aria-activedescendant="open && found.length ? `kind-${at}` : undefined" @focus="show" @paste="onPaste" @keydown.down.prevent="at = Math.min(found.length - 1, at + 1)" @keydown.up.prevent="at = Math.max(0, at - 1)" @keydown.enter.prevent="take()" @keydown.esc="open = false">
    <div v-if="open" id="kinds" class="sheetlike found" :style="above" role="listbox" aria-label="components">
      <div v-for="(choice, index) in found" :id="`kind-${index}`" :key="choice.key" role="option" :aria-selected="index === at" class="option" :class="{ on: index === at }" @mousedown.prevent="take(index)"><span class="what">{{ choice.label }}</span> <span class="minor words">{{ choice.note }}</span><span v-if="choice.own" class="own">own charge: {{ choice.own }}</span></div>
      <p v-if="!found.length" class="minor none">Nothing on the rate cards is called that. Any amount can be a free-form line.</p>
    </div>
    <form v-if="chosen" class="sheetlike patternform" :style="above" @submit.prevent="fill" @keydown.esc.stop="chosen = null" @focusout.stop>
      <h3 class="heading">{{ chosen.name }}</h3>
      <p class="minor">{{ chosen.description }}</p>
      <label v-for="(field, i) in chosen.open" :key="i"><span>{{ field.label }}</span><input class="field" :value="answers[i] ?? field.usual" :title="field.help" @input="answers[i] = ($event.target as HTMLInputElement).value"></label>
      <div class="buttons"><button class="button main">Add its {{ chosen.components.length }} rows</button><button type="button" class="button" @click="chosen = null">Not now</button></div>
    </form>
  </div>
</template>

<style scoped>
.adding { position: relative; }
.adder { width: 100%; min-height: 26px; background: none; color: var(--ink); padding: 0 4px; }
.adder::placeholder { color: var(--ink-3); }
.found { position: fixed; z-index: 20; width: 640px; max-width: 92vw; overflow-y: auto; }
.option { cursor: pointer; }
.what { flex: none; min-width: 150px; }
.words { flex: 1; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.own { color: var(--warn); font-size: 12px; }
.none { padding: 6px 10px; }
.patternform { position: fixed; z-index: 20; width: 420px; overflow-y: auto; padding: 12px; display: grid; gap: 8px; }
.patternform label { display: grid; grid-template-columns: 1fr 160px; gap: 10px; align-items: center; }
.buttons { display: flex; gap: 8px; }
</style>
