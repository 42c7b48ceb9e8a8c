<script setup lang="ts">
import { estimateSaved, kept, patternList } from '../../../shared/contracts/estimates'
import { patternSchema, fillPattern, usualShown, type Pattern } from '../../../core/estimate/pattern'
import { newEstimate } from '../../../core/estimate/estimate'
import { findKind } from '../../../core/estimate/components'
import { rowLabel } from '../../../core/estimate/sheet/row-name'
import { keptText } from '../../../core/estimate/sheet/typed-text'
import { upliftsFor } from '../../../core/uplift/uplift-set'
import type { z } from 'zod'

/** Reusable sets of components with fields left open: read, changed and used from here; they are made from a part of an estimate. */
const { prices, cards } = usePrices()
const list = ref<z.infer<typeof patternList>['patterns'] | null>(null)
const { attempt, problem } = useAttempt()
const router = useRouter()
/** The pattern that is open, as it is being changed. */
const open = ref<Pattern | null>(null)
const answers = reactive<Record<number, string>>({})
const wrong = ref('')
const done = ref('')
useHead({ title: 'Patterns · Rain Barrel' })
const load = () =>
  attempt(async () => {
    list.value = (await client.get('patterns', patternList)).patterns
  })
onMounted(load)
function show(pattern: Pattern) {
  open.value = open.value?.id === pattern.id ? null : (JSON.parse(JSON.stringify(pattern)) as Pattern)
  for (const key of Object.keys(answers)) Reflect.deleteProperty(answers, key)
  wrong.value = ''
  done.value = ''
}
const fieldOf = (kind: string, name: string) => findKind(kind)?.fields.find(f => f.name === name)
const labelOf = (kind: string, name: string) => (name === 'where' ? 'where' : (fieldOf(kind, name)?.label ?? name))
const shownValue = (kind: string, name: string, value: string) => (fieldOf(kind, name) ? shownInput(fieldOf(kind, name)!, value) : value)
function setInput(index: number, name: string, text: string) {
  const row = open.value!.components[index]!
  const field = fieldOf(row.kind, name)
  row.inputs[name] = field ? keptText(field, text) : text.trim()
}
async function save() {
  const checked = patternSchema.safeParse(open.value)
  wrong.value = checked.success ? '' : checked.error.issues.map(i => i.message).join('; ')
  if (!checked.success) return
  try {
    await client.send('POST', 'patterns', checked.data, kept)
    done.value = 'The pattern is saved for everyone. Estimates made from it before stay as they are.'
    await load()
  } catch (error) {
    wrong.value = problemOf(error).detail
  }
}
/** A new estimate with its rows, on the card that holds today. */
async function use() {
  const [card] = cardsHeld(cards.value, today())
  if (!open.value || !card) return
  const pattern = open.value
  const components = fillPattern(pattern, Object.fromEntries(pattern.open.map((field, i) => [i, answers[i] ?? field.usual])), newId)
  const id = crypto.randomUUID()
  try {
    await client.send(
      'PUT',
      `estimates/${id}`,
      { basedOn: null, estimate: { ...newEstimate(pattern.name, card, card.regions[0]!, today()), components } },
      estimateSaved,
    )
    await router.push(`/estimates/${id}`)
  } catch (error) {
    wrong.value = problemOf(error).detail
  }
}
async function remove(id: string, name: string) {
  if (!window.confirm(`Delete the pattern “${name}” for everyone? Estimates made from it stay as they are.`)) return
  const isDone = await attempt(async () => {
    await client.send('DELETE', `patterns/${id}`, {}, kept)
    if (open.value?.id === id) open.value = null
  })
  if (isDone) await load()
}
const own = (id: string) =>
  prices.value
    ? upliftsFor(prices.value.uplifts, { kind: '', variant: null, pattern: id })
        .map(u => u.name)
        .join(', ')
    : ''
</script>

<template>
  <div class="page">
    <PlaceNav place="Estimates" />
    <h1 class="sentence">
      {{
        list?.length
          ? `${count(list.length)} ${list.length === 1 ? 'pattern' : 'patterns'}: sets of components with fields left open.`
          : 'Patterns are sets of components with fields left open.'
      }}
    </h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <p v-if="list && !list.length" class="note">None yet. Open an estimate, choose Pattern, and save one of its parts.</p>
    <div v-if="list?.length" class="scroll" tabindex="0" role="group" aria-label="patterns">
      <table class="ledger">
        <thead>
          <tr>
            <th>pattern</th>
            <th>what it is for</th>
            <th>components</th>
            <th>left open</th>
            <th>own charges</th>
            <th>by</th>
            <th>saved</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <template v-for="{ pattern, who, savedAt } in list" :key="pattern.id">
            <tr :class="{ chosen: open?.id === pattern.id }">
              <td>
                <button class="link" :aria-expanded="open?.id === pattern.id" @click="show(pattern)">{{ pattern.name }}</button>
              </td>
              <td>{{ pattern.description }}</td>
              <td>{{ pattern.components.map(rowLabel).join(', ') }}</td>
              <td>{{ pattern.open.map(o => o.label).join(', ') || '–' }}</td>
              <td class="warn">{{ own(pattern.id) }}</td>
              <td>{{ who }}</td>
              <td>{{ timeText(savedAt) }}</td>
              <td><button class="link" :aria-label="`delete ${pattern.name}`" @click="remove(pattern.id, pattern.name)">delete</button></td>
            </tr>
            <tr v-if="open?.id === pattern.id">
              <td colspan="8" class="opened">
                <form class="two" @submit.prevent="save">
                  <div>
                    <div class="line">
                      <label>name <input v-model="open.name" class="field" required maxlength="80" /></label
                      ><label class="grow">what it is for <input v-model="open.description" class="field" maxlength="500" /></label>
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
                        <tr v-for="(row, i) in open.components" :key="row.id">
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
                      <button class="button main">Save the pattern</button
                      ><button type="button" class="button" @click="open = null">Close</button>
                    </div>
                  </div>
                  <div class="use">
                    <h2 class="heading">Use it</h2>
                    <label v-for="(field, i) in open.open" :key="i"
                      >{{ field.label }}
                      <input
                        class="field"
                        :value="answers[i] ?? usualShown(open, i)"
                        :title="field.help"
                        @input="answers[i] = ($event.target as HTMLInputElement).value"
                    /></label>
                    <p v-if="!open.open.length" class="minor">No field is left open.</p>
                    <button type="button" class="button" @click="use">Begin an estimate with it</button>
                    <p class="minor">In an estimate that is there, type its name where components are added.</p>
                  </div>
                </form>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
td {
  vertical-align: top;
}
.opened {
  background: var(--paper-sunk);
  padding: 10px 14px !important;
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
