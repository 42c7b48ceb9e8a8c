<script setup lang="ts">
import { componentKinds } from '../../../core/estimate/components'
import { systemsOf } from '../../../core/estimate/components/server'
import { kindsOnBills, upliftUnits } from '../../../core/uplift/meter-use'
import { upliftSetSchema, type StoredUplift, type UpliftSet } from '../../../core/uplift/uplift-set'
import { kept, patternList, upliftList } from '../../../shared/contracts/estimates'

/** The organisation's uplifts: named sets, changed here and held wherever they are attached. */
const { prices } = usePrices()
const list = ref<StoredUplift[] | null>(null)
const patterns = ref<{ id: string; name: string }[]>([])
const problem = ref<ReturnType<typeof problemOf> | null>(null)
const editing = ref<UpliftSet | null>(null)
const wrong = ref('')
definePageMeta({ alias: '/estimates/own-charges' }) // its earlier address
useHead({ title: 'Uplifts · Rain Barrel' })
async function load() {
  try {
    const [own, found] = await Promise.all([client.get('uplifts', upliftList), client.get('patterns', patternList)])
    list.value = own.uplifts
    patterns.value = found.patterns.map(p => ({ id: p.pattern.id, name: p.pattern.name }))
    problem.value = null
  } catch (error) {
    problem.value = problemOf(error)
  }
}
onMounted(load)
const begin = () => {
  editing.value = {
    id: crypto.randomUUID(),
    name: '',
    currency: 'EUR',
    interval: 'month',
    charges: [{ by: 'flat', label: '', amount: '' }],
    attached: [],
    validFrom: today(),
  }
}
const change = (set: StoredUplift) => {
  const { who: _, setAt: __, ...body } = JSON.parse(JSON.stringify(set)) as StoredUplift
  editing.value = body
}
async function save() {
  const checked = upliftSetSchema.safeParse(editing.value)
  wrong.value = checked.success ? '' : checked.error.issues.map(i => `${i.path.join(' ')}: ${i.message}`).join('; ')
  if (!checked.success) return
  try {
    await client.send('POST', 'uplifts', checked.data, kept)
    editing.value = null
    await load()
  } catch (error) {
    wrong.value = problemOf(error).detail
  }
}
async function remove(set: StoredUplift) {
  if (!window.confirm(`Take “${set.name}” out? Every estimate that it is attached to gets cheaper by it.`)) return
  try {
    await client.send('DELETE', `uplifts/${set.id}`, {}, kept)
  } catch (error) {
    problem.value = problemOf(error)
  }
  await load()
}
const addCharge = () => editing.value!.charges.push({ by: 'flat', label: '', amount: '' })
function setBy(index: number, by: string) {
  const { label, amount } = editing.value!.charges[index]!
  editing.value!.charges[index] =
    by === 'unit' ? { by: 'unit', label, amount, unit: 'GB' } : { by: by as 'flat' | 'percent', label, amount }
}
const targets = computed(() => [
  ...componentKinds.filter(k => !k.last).map(k => ({ value: `kind ${k.kind}`, label: k.label })),
  ...patterns.value.map(p => ({ value: `pattern ${p.id}`, label: `pattern ${p.name}` })),
  ...systems.value.map(name => ({ value: `system ${name}`, label: `system ${name}` })),
  { value: 'image ', label: 'an image' },
])
/** Licensed operating systems of all cards. */
const systems = computed(() => [
  ...new Set([...(prices.value?.cards.values() ?? [])].flatMap(c => c.regions.flatMap(r => systemsOf(c, r.id)))),
])
const image = ref('')
/** Variants of a kind on all cards: sizes, classes, tiers. */
const variants = (key: string) => {
  const field = componentKinds.find(k => k.kind === key)?.fields.find(f => f.column === 'size')
  return field?.type === 'choice' && prices.value
    ? [...new Set([...prices.value.cards.values()].flatMap(c => c.regions.flatMap(r => field.options(c, r.id))))].slice(0, 400)
    : []
}
const attachTo = ref('kind server')
const attachVariant = ref('')
function attach() {
  const [to, ...rest] = attachTo.value.split(' ')
  const key = to === 'image' ? image.value.trim() : rest.join(' ')
  if (!key) return
  editing.value!.attached.push({
    to: to as UpliftSet['attached'][number]['to'],
    key,
    variant: to === 'kind' ? attachVariant.value || null : null,
  })
  attachVariant.value = ''
}
const nameOf = (a: UpliftSet['attached'][number]) =>
  `${a.to === 'kind' ? (componentKinds.find(k => k.kind === a.key)?.label ?? a.key) : a.to !== 'pattern' ? `${a.to} ${a.key}` : `pattern ${patterns.value.find(p => p.id === a.key)?.name ?? a.key}`}${a.variant ? `, ${a.variant} only` : ''}`
/** What of a set no bill shows: it is on estimates alone. */
function onEstimates({ attached }: UpliftSet) {
  const unseen = attached.filter(({ to, key }) => (to === 'kind' ? !kindsOnBills.has(key) : to !== 'system'))
  if (!unseen.length) return ''
  return unseen.length === attached.length ? 'on estimates only: no bill tells it' : `no bill tells ${unseen.map(nameOf).join(', ')}`
}
const chargeText = (set: UpliftSet) =>
  set.charges
    .map(c =>
      c.by === 'percent'
        ? `${c.label} ${c.amount} %`
        : c.by === 'unit'
          ? `${c.label} ${c.amount} ${set.currency} per ${c.unit === 'users' ? 'user' : c.unit === 'calls' ? 'call' : c.unit} a ${set.interval}`
          : `${c.label} ${c.amount} ${set.currency} a ${set.interval}`,
    )
    .join(', ')
</script>

<template>
  <div class="page">
    <PlaceNav place="Estimates" />
    <h1 class="sentence">Uplifts on top of list prices: set once here, applied wherever they are attached.</h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <p class="note">
      They apply to estimates and to actual use: statements under Allocation show them beside the bill, for months that start with them in
      force.
    </p>
    <p class="under"><button class="button" @click="begin">New set</button></p>
    <form v-if="editing" class="edit" @submit.prevent="save">
      <div class="line">
        <label>name <input v-model="editing.name" class="field" required maxlength="80" /></label
        ><label
          >each
          <select v-model="editing.interval" class="field">
            <option>hour</option>
            <option>month</option>
          </select></label
        ><label>currency <input v-model="editing.currency" class="field s" maxlength="3" /></label
        ><label title="estimates that begin earlier do not bear it"
          >holds from <input v-model="editing.validFrom" type="date" class="field"
        /></label>
      </div>
      <div v-for="(charge, i) in editing.charges" :key="i" class="line">
        <label>charge <input v-model="charge.label" class="field" required maxlength="80" placeholder="what it is for" /></label
        ><label
          >by
          <select class="field" :value="charge.by" @change="setBy(i, ($event.target as HTMLSelectElement).value)">
            <option value="flat">each of them</option>
            <option value="unit">each unit</option>
            <option value="percent">percent</option>
          </select></label
        >
        <label>amount <input v-model="charge.amount" class="field s" inputmode="decimal" required /></label
        ><label v-if="charge.by === 'unit'"
          >unit
          <select v-model="charge.unit" class="field">
            <option v-for="u in upliftUnits" :key="u">{{ u }}</option>
          </select></label
        >
        <button v-if="editing.charges.length > 1" type="button" class="link" @click="editing.charges.splice(i, 1)">delete</button>
      </div>
      <p><button type="button" class="link" @click="addCharge">another charge</button></p>
      <div class="line">
        <span v-for="(a, i) in editing.attached" :key="i" class="chip"
          >{{ nameOf(a) }}
          <button type="button" class="link" :aria-label="`detach ${nameOf(a)}`" @click="editing.attached.splice(i, 1)">✕</button></span
        >
        <label
          >attach to
          <select v-model="attachTo" class="field">
            <option v-for="t in targets" :key="t.value" :value="t.value">{{ t.label }}</option>
          </select></label
        >
        <label v-if="attachTo.startsWith('kind ')"
          >variant
          <select v-model="attachVariant" class="field">
            <option value="">all of it</option>
            <option v-for="v in variants(attachTo.slice(5))" :key="v">{{ v }}</option>
          </select></label
        >
        <label v-if="attachTo === 'image '"
          >image <input v-model="image" class="field" maxlength="120" placeholder="its name, as rows say it"
        /></label>
        <button type="button" class="button" @click="attach">Attach</button>
      </div>
      <p v-if="wrong" class="bad" role="alert">{{ wrong }}</p>
      <div class="line">
        <button class="button main">Save the set</button><button type="button" class="button" @click="editing = null">Cancel</button>
      </div>
    </form>
    <div v-if="list?.length" class="scroll" tabindex="0" role="group" aria-label="uplifts">
      <table class="ledger">
        <thead>
          <tr>
            <th>set</th>
            <th>charges</th>
            <th>attached to</th>
            <th>holds from</th>
            <th>set by</th>
            <th>on</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="set in list" :key="set.id">
            <td>
              <b>{{ set.name }}</b>
            </td>
            <td>{{ chargeText(set) }}</td>
            <td>
              {{ set.attached.map(nameOf).join('; ') || 'nothing yet' }}
              <div v-if="onEstimates(set)" class="minor">{{ onEstimates(set) }}</div>
            </td>
            <td>{{ dayText(set.validFrom) }}</td>
            <td>{{ set.who }}</td>
            <td>{{ timeText(set.setAt) }}</td>
            <td><button class="link" @click="change(set)">change</button> <button class="link" @click="remove(set)">delete</button></td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else-if="list" class="note">None yet. A set may be flat for each, by unit or in percent.</p>
  </div>
</template>

<style scoped>
.edit {
  border: 1px solid var(--line-strong);
  border-radius: 4px;
  padding: 10px 14px;
  background: var(--paper-sunk);
  margin-bottom: 14px;
  display: grid;
  gap: 8px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: end;
}
.line label {
  display: grid;
  gap: 2px;
  font-size: 12px;
  color: var(--ink-3);
}
.s {
  width: 90px;
}
.chip {
  background: var(--paper-raised);
  border: 1px solid var(--line-strong);
  border-radius: 4px;
  padding: 2px 8px;
}
td .link {
  margin-right: 12px;
}
</style>
