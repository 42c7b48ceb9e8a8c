<script setup lang="ts">
import type { Rule } from '../../../core/allocation/plan'
import { onKeyStroke } from '@vueuse/core'
import { ruleDoubts, type RuleDoubt } from '../../../core/allocation/drafting/rule-doubts'
import { looksAt } from '../../../core/allocation/condition-tests'
import { conditionWords, ruleDays } from '../../../shared/words/rules'

const props = defineProps<{ currency: string }>()
const allocation = useAllocation()
const bill = computed(() => allocation.proofOf(props.currency)?.bill ?? '0')
/** The rules of a closed month are those of then. */
const isKept = computed(() => allocation.closed !== null && !allocation.draft)
const nothing = computed(
  () => allocation.plan?.rules.filter(rule => !allocation.settled?.catches.some(c => c.rule === rule.id)).length ?? 0,
)

const known = useRuleValues()
const data = useData()
watch(
  () => [...new Set(allocation.plan!.rules.flatMap(rule => rule.conditions.filter(looksAt).map(one => one.dimension)))],
  dimensions => known.learn(dimensions),
  { immediate: true },
)
const sets = computed(
  () => new Map(Object.entries(known.byDimension).map(([name, rows]) => [name, new Set(rows.map(row => row.values[0]!))])),
)
const doubts = computed(() =>
  ruleDoubts(allocation.plan!.rules, { tags: data.facts?.tags ?? [], values: dimension => sets.value.get(dimension) }),
)
/** How many charge lines a rule catches in the currency that is shown. */
const linesOf = (rule: Rule) => {
  const lines = allocation.caught(rule.id, props.currency)?.count ?? 0
  return `${count(lines)} ${lines === 1 ? 'line' : 'lines'}`
}
const doubtText = (doubt: RuleDoubt) => {
  if (doubt.kind === 'shadowed') return `rule ${doubt.by} takes all of it`
  if (doubt.kind === 'unknown-tag') return `no charge has the ${dimensionLabel(doubt.dimension)}`
  return `no charge has ${doubt.values.map(value => `“${value}”`).join(' or ')}`
}

/** The rule that is dragged, and the place it is over. */
const dragged = ref<string | null>(null)
const over = ref<number | null>(null)
function begin(event: DragEvent, rule: Rule) {
  dragged.value = rule.id
  event.dataTransfer?.setData('text/plain', conditionsText(rule))
}
/** Where it was let go; it moves once the browser has ended the drag, which it would not where what is dragged is moved before. */
let target: number | null = null
function end() {
  const [id, place] = [dragged.value, target]
  dragged.value = over.value = target = null
  if (id !== null && place !== null && allocation.plan!.rules[place]?.id !== id) void allocation.moveTo(id, place)
}
const conditionsText = (rule: Rule) => rule.conditions.map(one => Object.values(conditionWords(one)).join(' ')).join(' and ')

async function key(event: KeyboardEvent, rule: Rule) {
  if (isKept.value) return
  if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    event.preventDefault()
    const button = event.currentTarget as HTMLElement
    await allocation.move(rule.id, event.key === 'ArrowUp' ? -1 : 1)
    await nextTick()
    button.focus()
  } else if (event.key === 'Delete') void allocation.remove(rule.id)
}
onKeyStroke('z', event => {
  if ((event.ctrlKey || event.metaKey) && allocation.draft && !(event.target instanceof HTMLInputElement)) {
    event.preventDefault()
    void allocation.undo()
  }
})
</script>

<template>
  <section aria-label="Rules">
    <div class="top">
      <h2 class="heading">Rules</h2>
      <span class="minor"
        >first match wins · {{ allocation.plan!.rules.length }} rules, {{ nothing }} {{ nothing === 1 ? 'catches' : 'catch' }} nothing in
        this month</span
      >
      <span v-if="isKept" class="minor">version {{ allocation.closed!.version }}, as it was when the month was closed</span>
      <button v-else class="link" @click="allocation.addRule()">Add a rule</button>
    </div>
    <ol class="rules">
      <li
        v-for="(rule, index) in allocation.plan!.rules"
        :key="rule.id"
        class="rule"
        :class="{ idle: !allocation.settled?.catches.some(c => c.rule === rule.id), over: over === index && dragged !== rule.id }"
        @dragover.prevent="over = index"
        @drop.prevent="target = index"
      >
        <div class="line">
          <span
            class="number"
            :class="{ handle: !isKept }"
            :draggable="!isKept"
            :title="isKept ? undefined : 'Drag it to another place'"
            @dragstart="begin($event, rule)"
            @dragend="end"
            >{{ index + 1 }}</span
          >
          <button
            class="words"
            :title="isKept ? undefined : 'Edit. Alt with arrows moves it, Delete deletes it'"
            :disabled="isKept"
            @click="allocation.editing = allocation.editing === rule.id ? null : rule.id"
            @keydown="key($event, rule)"
          >
            <template v-for="(word, i) in rule.conditions.map(conditionWords)" :key="i"
              >{{ i ? ' and ' : '' }}{{ word.what }} {{ word.verb }} <b>{{ word.value }}</b></template
            ><template v-if="ruleDays(rule)">, {{ ruleDays(rule) }}</template> →
            <b>{{ rule.target ? allocation.targetName(rule.target) : 'choose where it goes' }}</b><span
              v-if="allocation.isPool(rule.target)"
              class="minor"
            >
              pool, shared out</span
            ><span v-for="(doubt, i) in doubts.get(rule.id)" :key="`doubt ${i}`" class="doubt">{{ doubtText(doubt) }}</span>
          </button>
          <span class="amount">{{ money(allocation.caught(rule.id, currency)?.amount ?? '0', currency) }}</span>
          <span class="lines">{{ linesOf(rule) }}</span>
          <span class="share">{{ percent(allocation.caught(rule.id, currency)?.amount ?? '0', bill) }}</span>
          <span v-if="!isKept" class="acts">
            <button class="small" :disabled="index === 0" :aria-label="`move rule ${index + 1} up`" @click="allocation.move(rule.id, -1)">
              ↑
            </button>
            <button
              class="small"
              :disabled="index === allocation.plan!.rules.length - 1"
              :aria-label="`move rule ${index + 1} down`"
              @click="allocation.move(rule.id, 1)"
            >
              ↓
            </button>
            <button class="small" :aria-label="`delete rule ${index + 1}`" @click="allocation.remove(rule.id)">×</button>
          </span>
        </div>
        <RuleEditor v-if="allocation.editing === rule.id" :rule="rule" :currency="currency" />
      </li>
    </ol>
  </section>
</template>

<style scoped>
.top {
  display: flex;
  gap: 12px;
  align-items: baseline;
  margin-top: 12px;
}
.top .link {
  margin-left: auto;
}
.rules {
  list-style: none;
  padding: 0;
  border-top: 1px solid var(--line-strong);
}
.rule {
  border-bottom: 1px solid var(--line);
}
.line {
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr) 100px 92px 60px 84px;
  gap: 6px;
  align-items: center;
  min-height: 28px;
}
.line:hover {
  background: color-mix(in srgb, var(--act-soft) 55%, transparent);
}
.rule.idle .words,
.rule.idle .amount {
  color: var(--ink-3);
}
.number {
  text-align: right;
  color: var(--ink-3);
}
.words {
  text-align: left;
  min-height: 26px;
}
.words b {
  font-weight: 600;
  text-decoration: underline;
  text-decoration-color: var(--act);
  text-underline-offset: 3px;
}
.doubt {
  margin-left: 8px;
  font-size: 12px;
  color: var(--warn);
}
.amount,
.share {
  text-align: right;
}
.share {
  color: var(--ink-3);
}
.small {
  width: 26px;
  height: 26px;
  border-radius: 3px;
  color: var(--ink-2);
}
.small:hover:not(:disabled) {
  background: var(--act-soft);
  color: var(--act);
}
.small:disabled {
  opacity: 0.3;
}
@media (max-width: 700px) {
  .line {
    grid-template-columns: 26px minmax(0, 1fr) 90px;
  }
  .share {
    display: none;
  }
  .acts {
    grid-column: 2 / -1;
  }
  .top {
    flex-wrap: wrap;
  }
}
.lines {
  color: var(--ink-3);
  font-size: 12px;
  text-align: right;
  white-space: nowrap;
}
.handle {
  cursor: grab;
}
.over {
  box-shadow: inset 0 2px 0 var(--act);
}
</style>
