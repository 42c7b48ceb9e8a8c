<script setup lang="ts">
import type { Decimal } from '../../../core/money/decimal'
import { decimalText } from '../../../core/money/decimal'
import { evaluate, stretchesOf, type Working } from '../../../core/working/working'
import { workingSigns } from '../../../shared/words/working-signs'

/** How an amount was made, step by step, in words and figures: the tree that was evaluated. Parts that came to nothing are left out. */
const props = withDefaults(defineProps<{ working: Working; currency: string; depth?: number; folded?: boolean }>(), {
  depth: undefined,
  folded: undefined,
})
const fullest = (text: string) =>
  text.replace(/^(-?)(\d+)/, (_, sign: string, whole: string) => `${sign ? '−' : ''}${count(Number(whole))}`)
/** Every digit that matters: what was divided has more. */
const figure = (value: Decimal) => fullest(decimalText(value.round(value.abs().gte(1) ? 6 : 10)))
const shown = (part: Working) =>
  `${figure(evaluate(part))}${part.op === 'input' && part.unit && !part.unit.startsWith('per ') ? ` ${part.unit}` : ''}`
const names = (part: Working) =>
  part.op === 'input'
    ? `${part.label}${part.unit?.startsWith('per ') ? ` ${part.unit}` : ''}${part.source ? ` (${part.source})` : ''}`
    : part.label
const result = computed(() => figure(evaluate(props.working)))
const inner = computed(() =>
  props.working.op === 'input'
    ? []
    : props.working.op === 'sum'
      ? props.working.parts.filter(p => !evaluate(p).eq(0))
      : props.working.parts,
)
const deeper = computed(() =>
  inner.value.filter((p, i) => p.op !== 'input' && !(props.working.op === 'tiered' && i > 0 && evaluate(p).eq(0))),
)
// a tree too long to read at once shows its first step; each further one opens when it is asked for
const MOST_AT_ONCE = 40
const size = (part: Working): number => (part.op === 'input' ? 1 : part.parts.reduce((n, p) => n + size(p), 1))
const folded = computed(() => props.folded ?? size(props.working) > MOST_AT_ONCE)
const unfolded = ref(new Set<number>())
const fold = (index: number, event: Event) => {
  const next = new Set(unfolded.value)
  if ((event.target as HTMLDetailsElement).open) next.add(index)
  else next.delete(index)
  unfolded.value = next
}
const stretches = computed(() =>
  props.working.op === 'tiered' ? stretchesOf(props.working, ...(props.working.parts.map(evaluate) as [Decimal, Decimal])) : [],
)
</script>

<template>
  <div class="tree" :class="{ own: working.own }">
    <template v-if="working.op === 'input'"
      ><div class="line">
        <span>{{ names(working) }}</span><b>{{ result }}</b>
      </div></template
    >
    <template v-else-if="working.op === 'tiered'">
      <div class="line">
        <span
          >{{ working.label
          }}<template v-if="stretches.length === 1"
            >: {{ figure(stretches[0]!.units) }} {{ working.unit }} × {{ fullest(stretches[0]!.price) }}</template
          ></span
        ><b>{{ result }}{{ depth ? '' : ` ${currency}` }}</b>
      </div>
      <template v-if="stretches.length > 1"
        ><div v-for="stretch in stretches" :key="stretch.label" class="line minor">
          <span>{{ stretch.label }}: {{ figure(stretch.units) }} × {{ fullest(stretch.price) }}</span
          ><span>{{ figure(stretch.units.times(stretch.price)) }}</span>
        </div></template
      >
      <div class="minor">{{ working.source }}</div>
    </template>
    <template v-else>
      <div class="line">
        <span>{{ working.label }}: {{ inner.length > 12 ? `${inner.length} parts` : inner.map(shown).join(workingSigns[working.op]) }}</span
        ><b>{{ result }}{{ depth ? '' : ` ${currency}` }}</b>
      </div>
      <div v-if="inner.length <= 12" class="minor">{{ inner.map(names).join(workingSigns[working.op]) }}</div>
    </template>
    <template v-for="(part, i) in deeper" :key="i">
      <details v-if="folded && size(part) > 3" class="part" :class="{ own: part.own }" @toggle.stop="fold(i, $event)">
        <summary class="line">
          <span>{{ part.label }}</span><b>{{ figure(evaluate(part)) }}</b>
        </summary>
        <WorkingsTree v-if="unfolded.has(i)" :working="part" :currency="currency" :depth="(depth ?? 0) + 1" folded />
      </details>
      <WorkingsTree v-else class="part" :working="part" :currency="currency" :depth="(depth ?? 0) + 1" :folded="folded" />
    </template>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  justify-content: space-between;
  gap: 16px;
}
/* a figure is never broken */
.line > :last-child:not(:first-child) {
  white-space: nowrap;
}
summary {
  cursor: pointer;
  min-height: 24px;
  align-items: center;
}
summary > span::before {
  content: '▸ ';
  color: var(--ink-3);
}
details[open] > summary > span::before {
  content: '▾ ';
}
.part {
  border-left: 1px solid var(--line-strong);
  padding-left: 10px;
  margin-top: 4px;
}
.own {
  border-left: 3px solid var(--warn);
  padding-left: 8px;
}
</style>
