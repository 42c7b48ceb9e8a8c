<script setup lang="ts">
import { decimalText } from '../../../core/money/decimal'
import { evaluate, type Working } from '../../../core/working/working'

/** How an amount was made, step by step, in words and figures: the tree that was evaluated. */
const props = defineProps<{ working: Working, currency: string, depth?: number }>()
const signs = { sum: ' + ', product: ' × ', difference: ' − ', quotient: ' ÷ ', smaller: ', the smaller of ', larger: ', the larger of ', ceiling: ' up to a whole ' } as const
const shown = (part: Working): string => {
  const text = part.op === 'input' ? fullest(part.value) : fullest(decimalText(evaluate(part).round(10)))
  return part.op === 'input' ? `${text}${part.unit && !part.unit.startsWith('per ') ? ` ${part.unit}` : ''}` : text
}
const fullest = (text: string) => text.replace(/^(-?)(\d+)/, (_, sign: string, whole: string) => `${sign ? '−' : ''}${count(Number(whole))}`)
const names = (part: Working) => part.op === 'input' ? `${part.label}${part.unit?.startsWith('per ') ? ` ${part.unit}` : ''}${part.source ? ` (${part.source})` : ''}` : part.label
const result = computed(() => fullest(decimalText(evaluate(props.working).round(10))))
const deeper = computed(() => props.working.op === 'input' ? [] : props.working.parts.filter(p => p.op !== 'input'))
</script>

<template>
  <div class="tree">
    <template v-if="working.op === 'input'"><div class="line"><span>{{ names(working) }}</span><b>{{ result }}</b></div></template>
    <template v-else>
      <div class="line"><span>{{ working.label }}: {{ working.parts.map(shown).join(signs[working.op]) }}</span><b>{{ result }}{{ depth ? '' : ` ${currency}` }}</b></div>
      <div class="minor">{{ working.parts.map(names).join(signs[working.op]) }}</div>
      <WorkingsTree v-for="(part, i) in deeper" :key="i" class="part" :working="part" :currency="currency" :depth="(depth ?? 0) + 1" />
    </template>
  </div>
</template>

<style scoped>
.line { display: flex; justify-content: space-between; gap: 16px; }
.part { border-left: 1px solid var(--line-strong); padding-left: 10px; margin-top: 4px; }
</style>
