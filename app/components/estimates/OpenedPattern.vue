<script setup lang="ts">
import { findKind } from '../../../core/estimate/components'
import { newEstimate } from '../../../core/estimate/estimate'
import { fillPattern, patternSchema, usualShown, type Pattern } from '../../../core/estimate/pattern'
import { rowLabel } from '../../../core/estimate/sheet/row-name'
import { keptText } from '../../../core/estimate/sheet/typed-text'
import { estimateSaved, kept } from '../../../shared/contracts/estimates'
import type { RateCardEntry } from '../../../shared/contracts/reference-data'

/** A pattern opened: its parts and inputs are changed for everyone, or an estimate begins with it. */
const { saved, cards } = defineProps<{ saved: Pattern; cards: readonly RateCardEntry[] }>()
const emit = defineEmits<{ close: []; saved: [] }>()
const router = useRouter()
/** As it is being changed. */
const pattern = ref(JSON.parse(JSON.stringify(saved)) as Pattern)
const answers = reactive<Record<number, string>>({})
const wrong = ref('')
const done = ref('')
const fieldOf = (kind: string, name: string) => findKind(kind)?.fields.find(f => f.name === name)
const labelOf = (kind: string, name: string) => (name === 'where' ? 'where' : (fieldOf(kind, name)?.label ?? name))
const shownValue = (kind: string, name: string, value: string) => (fieldOf(kind, name) ? shownInput(fieldOf(kind, name)!, value) : value)
function setInput(index: number, name: string, text: string) {
  const row = pattern.value.components[index]!
  const field = fieldOf(row.kind, name)
  row.inputs[name] = field ? keptText(field, text) : text.trim()
}
async function save() {
  const checked = patternSchema.safeParse(pattern.value)
  wrong.value = checked.success ? '' : checked.error.issues.map(i => i.message).join('; ')
  if (!checked.success) return
  try {
    await client.send('POST', 'patterns', checked.data, kept)
    done.value = 'The pattern is saved for everyone. Estimates made from it before stay as they are.'
    emit('saved')
  } catch (error) {
    wrong.value = problemOf(error).detail
  }
}
/** A new estimate with its rows, on the card that holds today. */
async function use() {
  const [card] = cardsHeld(cards, today())
  if (!card) return
  const { name, open } = pattern.value
  const components = fillPattern(pattern.value, Object.fromEntries(open.map((field, i) => [i, answers[i] ?? field.usual])), newId)
  const estimate = { ...newEstimate(name, card, card.regions[0]!, today()), components }
  const id = crypto.randomUUID()
  try {
    await client.send('PUT', `estimates/${id}`, { basedOn: null, estimate }, estimateSaved)
    await router.push(`/estimates/${id}`)
  } catch (error) {
    wrong.value = problemOf(error).detail
  }
}
</script>

<template>
  <form class="two" @submit.prevent="save">
    <div>
      <div class="line">
        <label>name <input v-model="pattern.name" class="field" required maxlength="80" /></label
        ><label class="grow">what it is for <input v-model="pattern.description" class="field" maxlength="500" /></label>
      </div>
      <table class="ledger rows">
        <thead>
          <tr>
            <th>component</th>
            <th>part</th>
            <th>inputs</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in pattern.components" :key="row.id">
            <td>{{ rowLabel(row) }}</td>
            <td><input v-model="row.part" class="field part" maxlength="120" :aria-label="`part of ${rowLabel(row)}`" /></td>
            <td>
              <div class="inputs">
                <label v-for="(value, name) in row.inputs" :key="name"
                  >{{ labelOf(row.kind, String(name)) }}
                  <input
                    v-held="shownValue(row.kind, String(name), value)"
                    class="field"
                    @change="setInput(i, String(name), ($event.target as HTMLInputElement).value)"
                /></label>
              </div>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="wrong" class="bad" role="alert">{{ wrong }}</p>
      <p v-if="done" class="good" role="status">{{ done }}</p>
      <div class="line">
        <button class="button main">Save the pattern</button><button type="button" class="button" @click="emit('close')">Close</button>
      </div>
    </div>
    <div class="use">
      <h2 class="heading">Use it</h2>
      <label v-for="(field, i) in pattern.open" :key="i"
        >{{ field.label }}
        <input
          class="field"
          :value="answers[i] ?? usualShown(pattern, i)"
          :title="field.help"
          @input="answers[i] = ($event.target as HTMLInputElement).value"
      /></label>
      <p v-if="!pattern.open.length" class="minor">No fields are left open.</p>
      <button type="button" class="button" @click="use">Start an estimate with it</button>
      <p class="minor">In an existing estimate, type its name where components are added.</p>
    </div>
  </form>
</template>

<style scoped>
td {
  vertical-align: top;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 260px;
  gap: 24px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: end;
  margin: 4px 0 8px;
}
.line label {
  display: grid;
  gap: 2px;
  font-size: 12px;
  color: var(--ink-3);
}
.grow {
  flex: 1;
}
.part {
  width: 120px;
}
.inputs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
}
.inputs label {
  display: inline-flex;
  gap: 5px;
  align-items: center;
  font-size: 12.5px;
  color: var(--ink-2);
}
.inputs .field {
  width: 110px;
}
.use {
  display: grid;
  gap: 6px;
  align-content: start;
}
.use label {
  display: grid;
  grid-template-columns: 1fr 110px;
  gap: 6px;
  align-items: center;
}
@media (max-width: 800px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
