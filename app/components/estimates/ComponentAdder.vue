<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { findComponents } from '../../../core/estimate/adding/find-components'
import { readLine } from '../../../core/estimate/adding/read-line'
import { findKind } from '../../../core/estimate/components'
import type { ComponentKind } from '../../../core/estimate/components/kind'
import { newRow } from '../../../core/estimate/estimate'
import type { Pattern } from '../../../core/estimate/pattern'
import { findPlace, placeText } from '../../../core/estimate/pricing/place'
import { figureText, priceAlone } from '../../../core/estimate/pricing/price-estimate'
import { unitWords } from '../../../core/ratecard/meters'
import { upliftsFor } from '../../../core/uplift/uplift-set'

/** Type plain words or a whole line, take what is found: a kind of component, a line of the rate card, or a pattern. */
const emit = defineEmits<{ added: [string]; pasted: [string]; stays: [string] }>()
const store = useEstimate()
const text = ref('')
const at = ref(0)
const open = ref(false)
const chosen = ref<Pattern | null>(null)

type Found = { key: string; label: string; note: string; take: () => void; own?: string; unknown?: string }
const wordsOf = (sought: string) => sought.trim().toLowerCase().split(/\s+/).filter(Boolean)
const monthOf = (kind: ComponentKind, inputs: Record<string, string> = {}) => {
  const way = priceAlone(store.estimate!, store.prices, newRow('x', '', kind.kind, inputs)).chosen
  return way && !kind.last ? `${money(roundText(figureText(way.effectiveMonthly)), store.currency)} ${store.currency} a month` : ''
}
/** What one of it costs as it begins, uplifts included. */
const usualPrice = (kind: ComponentKind) => monthOf(kind) && `${monthOf(kind)} as it begins`
/** Names of the organisation's uplifts on a kind or a pattern. */
const upliftNames = (kind: string, pattern: string | null) =>
  upliftsFor(store.uplifts, { kind, variant: null, pattern })
    .map(set => set.name)
    .join(', ') || undefined
/** The cards that rows may stand on, each with the region that is looked at. */
const places = computed(() =>
  [...store.cards.values()].flatMap(card => {
    const region = card.provider === store.estimate!.provider ? store.estimate!.region : card.regions[0]!.id
    return findPlace(placeText(card.provider, region, store.estimate!), store.estimate!, store.cards) ? [{ card, region }] : []
  }),
)
/** The whole line as a row, with what was understood of it. */
const line = computed((): Found[] => {
  const place = findPlace('', store.estimate!, store.cards)
  const read = place && readLine(text.value, place)
  if (!read || !read.understood.length) return []
  const rest = read.kind.fields.some(field => field.column && read.inputs[field.name] === undefined) ? 'the rest as usual' : ''
  return [
    {
      key: 'line',
      label: read.kind.label,
      note: [read.understood.join(' · '), rest, open.value ? monthOf(read.kind, read.inputs) : ''].filter(Boolean).join(' · '),
      ...(read.unknown.length && { unknown: read.unknown.join(', ') }),
      take: () => {
        store.addRead([read])
        emit('stays', `${read.kind.label}: ${read.understood.join(', ')}.`)
      },
    },
  ]
})
const found = computed((): Found[] => {
  const words = wordsOf(text.value)
  const patterns = store.patterns
    .filter(p => words.every(word => `pattern ${p.name} ${p.description}`.toLowerCase().includes(word)))
    .map((pattern): Found => ({
      key: `pattern ${pattern.id}`,
      label: pattern.name,
      note: `pattern · ${pattern.description}`,
      take: () => void (chosen.value = pattern),
      own: upliftNames('', pattern.id),
    }))
  const things = findComponents(text.value, places.value)
    .filter(one => one.is === 'line' || store.offered(one.kind))
    .map((one): Found => {
      if (one.is === 'kind') {
        const { kind } = one
        return {
          key: kind.kind,
          label: kind.label,
          note: [kind.words.slice(0, 3).join(', '), open.value ? usualPrice(kind) : ''].filter(Boolean).join(' · '),
          take: () => emit('added', store.add(kind)),
          own: upliftNames(kind.kind, null),
        }
      }
      const where = placeText(one.card.provider, one.line.region, store.estimate!)
      return {
        key: one.line.sku,
        label: `${one.line.service}${one.line.variant ? ` ${one.line.variant}` : ''}`,
        note: `rate card line · ${one.line.meter.replaceAll('-', ' ')} · ${fullPrice(one.line.tiers[0]!.price)} ${one.card.currency} per ${unitWords(one.line.unit)}${where.includes('/') ? ` · ${one.card.provider}` : ''}`,
        take: () => emit('added', store.add(findKind('metered')!, undefined, { sku: one.line.sku, ...(where && { where }) })),
      }
    })
  return [...line.value, ...things, ...patterns]
})
// the list stands free of the sheet, which scrolls sideways: above the field where there is room, else below it
const box = useTemplateRef<HTMLInputElement>('box')
const above = ref({})
function show() {
  const { left, top, bottom } = box.value!.getBoundingClientRect()
  above.value =
    top > window.innerHeight - bottom
      ? { left: `${left}px`, bottom: `${window.innerHeight - top + 4}px`, maxHeight: `${Math.min(430, top - 12)}px` }
      : { left: `${left}px`, top: `${bottom + 4}px`, maxHeight: `${Math.min(430, window.innerHeight - bottom - 12)}px` }
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
    <input
      ref="box"
      v-model="text"
      class="adder"
      placeholder="add a component: server, disk, egress… or a line such as 2 servers 4 vCPU 16 GB; paste several"
      aria-label="add a component"
      role="combobox"
      :aria-expanded="open"
      aria-controls="kinds"
      :aria-activedescendant="open && found.length ? `kind-${at}` : undefined"
      @focus="show"
      @paste="onPaste"
      @keydown.down.prevent="at = Math.min(found.length - 1, at + 1)"
      @keydown.up.prevent="at = Math.max(0, at - 1)"
      @keydown.enter.prevent="take()"
      @keydown.esc="open = false"
    />
    <div v-if="open" id="kinds" class="sheetlike found" :style="above" role="listbox" aria-label="components">
      <div
        v-for="(choice, index) in found"
        :id="`kind-${index}`"
        :key="choice.key"
        role="option"
        :aria-selected="index === at"
        class="option"
        :class="{ on: index === at }"
        @mousedown.prevent="take(index)"
      >
        <span class="what">{{ choice.label }}</span> <span class="minor words">{{ choice.note }}</span><span
          v-if="choice.unknown"
          class="own"
          >not understood: {{ choice.unknown }}</span
        ><span v-if="choice.own" class="own">uplift: {{ choice.own }}</span>
      </div>
      <p v-if="!found.length" class="minor none">The rate cards have no price for that. Any amount can be a free-form line.</p>
    </div>
    <PatternForm v-if="chosen" :key="chosen.id" :pattern="chosen" :style="above" @close="chosen = null" />
  </div>
</template>

<style scoped>
.adding {
  position: relative;
}
.adder {
  width: 100%;
  min-height: 26px;
  background: none;
  color: var(--ink);
  padding: 0 4px;
}
.adder::placeholder {
  color: var(--ink-3);
}
.found {
  position: fixed;
  z-index: 20;
  width: 640px;
  max-width: 92vw;
  overflow-y: auto;
}
.option {
  cursor: pointer;
}
.what {
  flex: none;
  min-width: 150px;
}
.words {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.own {
  color: var(--warn);
  font-size: 12px;
}
.none {
  padding: 6px 10px;
}
</style>
