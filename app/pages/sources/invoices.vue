<script setup lang="ts">
import { z } from 'zod'
import { invoicesTaken, invoiceViews, type InvoiceView } from '../../../shared/contracts/invoices'

/** Invoices as their issuers sent them, each held against its loaded charges: tax and rounding explained, what is missing named. */
const invoices = ref<InvoiceView[]>([])
const sources = useSources()
const data = useData()
useHead({ title: 'Invoices · Rain Barrel' })
const { attempt, problem, busy } = useAttempt()
const load = () =>
  attempt(async () => {
    invoices.value = (await client.get('invoices', invoiceViews)).invoices
  })
watch(() => data.facts?.revision, load, { immediate: true })
async function drop(files: File[]) {
  await sources.drop(files)
  await load()
}
const states = {
  equal: 'equals the charges',
  rounding: 'equal but for rounding',
  differs: 'differs',
  'nothing loaded': 'nothing loaded',
} as const
const partWords = { tax: 'tax', rounding: 'rounding', unexplained: 'unexplained' } as const
const input = ref({
  issuer: '',
  invoiceId: '',
  month: '',
  currency: 'EUR',
  total: '',
  tax: '',
  lines: '',
  rounds: 'lines' as 'lines' | 'charges',
})
const adding = ref(false)
const wrong = computed(
  () =>
    !input.value.issuer.trim() ||
    !input.value.invoiceId.trim() ||
    !/^\d{4}-\d{2}$/.test(input.value.month) ||
    !/^-?\d+(\.\d+)?$/.test(input.value.total.trim()) ||
    !/^\d*$/.test(input.value.lines.trim()) ||
    (input.value.tax.trim() !== '' && !/^-?\d+(\.\d+)?$/.test(input.value.tax.trim())),
)
const add = () =>
  attempt(async () => {
    await client.send(
      'POST',
      'invoices',
      {
        ...input.value,
        total: input.value.total.trim(),
        tax: input.value.tax.trim() || null,
        lines: input.value.lines.trim() ? Number(input.value.lines) : null,
      },
      invoicesTaken,
    )
    adding.value = false
    await load()
  })
const remove = (id: number) =>
  attempt(async () => {
    await client.send('DELETE', `invoices/${id}`, {}, z.object({ id: z.number() }))
    await load()
  })
const open = ref<number | null>(null)
const settled = computed(() => invoices.value.filter(i => i.state === 'equal' || i.state === 'rounding').length)
</script>

<template>
  <div class="page">
    <PlaceNav place="Sources" />
    <h1 class="sentence">
      {{
        invoices.length
          ? `${settled} of ${invoices.length} invoices agree with the loaded charges.`
          : 'No invoices yet: enter one, or drop a CSV.'
      }}
    </h1>
    <DropPlace @files="drop" />
    <TakenFiles />
    <p class="minor">
      A CSV with the columns <code>issuer,invoice,month,currency,total,tax</code>, and <code>lines,rounds</code> where the issuer rounds
      many; the total contains the tax.
      <button class="link" :aria-expanded="adding" @click="adding = !adding">Enter an invoice</button>
    </p>
    <form v-if="adding" class="add" @submit.prevent="!wrong && add()">
      <label>issuer <input v-model="input.issuer" class="field" required /></label
      ><label>invoice <input v-model="input.invoiceId" class="field" required /></label
      ><label>month <input v-model="input.month" class="field short" placeholder="2026-10" required /></label>
      <label>currency <input v-model="input.currency" class="field tiny" maxlength="3" required /></label
      ><label>total <input v-model="input.total" class="field short" inputmode="decimal" required /></label
      ><label>tax included <input v-model="input.tax" class="field short" inputmode="decimal" placeholder="not said" /></label>
      <label>lines <input v-model="input.lines" class="field tiny" inputmode="numeric" placeholder="1" /></label
      ><label
        >rounded
        <select v-model="input.rounds" class="field">
          <option value="lines">line by line</option>
          <option value="charges">charge by charge</option>
        </select></label
      >
      <button class="button main" :disabled="busy || wrong">Compare with charges</button>
    </form>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="invoices.length" class="scroll" tabindex="0" role="group" aria-label="invoices">
      <table class="ledger" data-testid="invoices">
        <thead>
          <tr>
            <th>invoice</th>
            <th>month</th>
            <th class="n">invoiced</th>
            <th class="n">loaded</th>
            <th class="n">difference</th>
            <th>made of</th>
            <th>state</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <template v-for="invoice in invoices" :key="invoice.id">
            <tr class="acts">
              <td>
                <button class="link" :aria-expanded="open === invoice.id" @click="open = open === invoice.id ? null : invoice.id">
                  {{ invoice.issuer }}</button><br /><span class="minor">{{ invoice.invoiceId }}</span>
              </td>
              <td>{{ monthText(invoice.month) }}</td>
              <td class="n">{{ money(invoice.total, invoice.currency) }} {{ invoice.currency }}</td>
              <td class="n" :title="invoice.loaded">{{ money(invoice.loaded, invoice.currency) }}</td>
              <td class="n" :title="invoice.difference">
                {{ signedMoney(invoice.difference, invoice.currency, Number(invoice.difference) === 0 ? '–' : '0.00') }}
              </td>
              <td>
                <span v-for="part in invoice.parts" :key="part.what" class="part" :class="{ bad: part.what === 'unexplained' }"
                  >{{ partWords[part.what] }}
                  {{ part.what === 'rounding' ? fullPrice(roundText(part.amount, 6)) : signedMoney(part.amount, invoice.currency) }}</span
                >
              </td>
              <td :class="invoice.state === 'equal' || invoice.state === 'rounding' ? 'good' : 'bad'">{{ states[invoice.state] }}</td>
              <td class="n">
                <button class="link" :aria-label="`delete ${invoice.invoiceId}`" @click="remove(invoice.id)">delete</button>
              </td>
            </tr>
            <tr v-if="open === invoice.id || invoice.missing.length">
              <td colspan="8" class="detail">
                <p v-for="text in invoice.missing" :key="text" class="warn">{{ text }}</p>
                <template v-if="open === invoice.id"
                  ><p>
                    {{ count(invoice.charges) }} {{ invoice.charges === 1 ? 'charge' : 'charges' }},
                    {{ money(invoice.loadedTax, invoice.currency) }} {{ invoice.currency }} tax included; the invoice says
                    {{ invoice.tax === null ? 'nothing of tax' : `${money(invoice.tax, invoice.currency)} of tax` }}. Exactly:
                    {{ invoice.total }} less {{ invoice.loaded }} is {{ invoice.difference }}.
                  </p>
                  <p v-if="invoice.otherCurrencies.length" class="warn">
                    Charges that name it are also in {{ invoice.otherCurrencies.join(', ') }}.
                  </p></template
                >
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <p v-else-if="busy" class="note">Reading…</p>
  </div>
</template>

<style scoped>
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: end;
  margin: 8px 0;
}
.add label {
  display: grid;
  font-size: 12px;
  color: var(--ink-3);
}
.short {
  width: 110px;
}
.tiny {
  width: 60px;
}
.part {
  margin-right: 12px;
  white-space: nowrap;
}
.detail {
  background: var(--paper-sunk);
}
code {
  background: var(--paper-sunk);
  padding: 0 4px;
  border-radius: 3px;
}
</style>
