<script setup lang="ts">
import { z } from 'zod'
import { resourceReport, resourceView, type ResourceReport, type ResourceView } from '../../../shared/contracts/resources'

/** One resource: what it is in plain words, what it costs and why, its tags and where they come from, what happened to it, whose it is. */
const route = useRoute()
const data = useData()
const resource = ref<ResourceView | null>(null)
const { attempt, problem } = useAttempt()
const id = computed(() => String(route.query.id ?? ''))
const load = () =>
  attempt(async () => {
    resource.value = await client.get(`resources?id=${encodeURIComponent(id.value)}`, resourceView)
    note.value = resource.value.note?.body ?? ''
  })
// what a cloud says of it is asked beside the page: it may take a while, or fail
const report = ref<ResourceReport['report']>(null)
const asking = useAttempt()
watch(
  id,
  () => {
    report.value = null
    if (!id.value) return
    void asking.attempt(async () => {
      report.value = (await client.get(`resources/reported?id=${encodeURIComponent(id.value)}`, resourceReport)).report
    })
  },
  { immediate: true },
)
const everyResource = { path: '/spend', query: { by: 'ResourceId', period: 'all', each: 'month' } }
const daily = (days: { amount: number }[]) => quantity((days.reduce((n, d) => n + d.amount, 0) / Math.max(1, days.length)).toFixed(2))
const outcomeWords = { done: 'done', refused: 'refused', 'nothing to do': 'there was nothing to do' } as const
const note = ref('')
const writing = ref(false)
watch([id, () => data.facts?.revision], () => id.value && void load(), { immediate: true })
useHead({ title: computed(() => `${resource.value?.names[0] ?? id.value} · Rain Barrel`) })

const currency = computed(() => resource.value?.months[0]?.currency ?? 'EUR')
const months = computed(() => resource.value?.months.filter(m => m.currency === currency.value) ?? [])
const total = computed(() => addTexts(months.value.map(m => m.effective)))
const lastMonth = computed(() => months.value.at(-2) ?? months.value.at(-1))
const detail = (name: string) => resource.value?.details[`SkuPriceDetails/${name}`]
/** What it is, in a sentence's words. */
const whatItIs = computed(() => {
  const r = resource.value
  if (!r) return ''
  const size = detail('InstanceType')
  return [
    r.type ?? 'Resource',
    size,
    detail('OperatingSystem') && `with ${detail('OperatingSystem')}`,
    r.regionName && `in ${r.regionName}`,
    r.provider && `at ${r.provider}`,
  ]
    .filter(Boolean)
    .join(' ')
})
const LATELY = 31
/** Fewer charged hours a day than this are worth a sentence. */
const ALL_DAY = 23.5
const lately = (meter: ResourceView['meters'][number]) => meter.days.slice(-LATELY)
const sum = (texts: string[]) => addTexts(texts)
const unitPrice = (meter: ResourceView['meters'][number]) => {
  const quantity = sum(meter.days.map(d => d.quantity))
  return Number(quantity) ? fullPrice(roundText(divideText(sum(meter.days.map(d => d.amount)), Number(quantity)), 8)) : '–'
}
const fromWords = { own: 'its own', container: 'inherited from its container', account: 'inherited from its account' } as const
const saveNote = () =>
  attempt(async () => {
    await client.send('PUT', 'resources/note', { id: id.value, body: note.value }, z.object({ id: z.string() }))
    writing.value = false
    await load()
  })
const amounts = (list: { currency: string; amount: string }[]) => list.map(a => `${money(a.amount, a.currency)} ${a.currency}`).join(' + ')
</script>

<template>
  <div class="page">
    <PlaceNav place="Spend" />
    <p v-if="!id" class="note">
      The address names no resource. Look for one with Jump (Ctrl K), or
      <NuxtLink class="link" :to="everyResource">see all in Spend</NuxtLink>.
    </p>
    <ProblemNote v-else-if="problem" :problem="problem" :retry="load"
      ><NuxtLink class="link" :to="everyResource">See all in Spend</NuxtLink></ProblemNote
    >
    <template v-if="resource">
      <h1 class="sentence">
        <b class="named">{{ resource.names[0] ?? resource.id }}</b>: {{ whatItIs }},
        {{
          resource.stillThere
            ? `charged since ${dayText(resource.firstDay)}`
            : `charged from ${dayText(resource.firstDay)} to ${dayText(resource.lastDay)}`
        }}.
      </h1>
      <p class="under">
        <span>{{ resource.id }}</span><span>{{ resource.subAccount }}</span
        ><span v-if="resource.container">container {{ resource.container }}</span
        ><NuxtLink
          class="link"
          :to="{ path: '/spend', query: { keep: `ResourceId=${resource.id}`, by: 'SkuMeter', period: 'all', each: 'month' } }"
          >Look at it in Spend</NuxtLink
        ><NuxtLink
          v-if="lastMonth"
          class="link"
          :to="{
            path: '/estimates',
            query: {
              month: lastMonth.start.slice(0, 7),
              keep: JSON.stringify({ ResourceId: [resource.id] }),
              leaveOut: '{}',
              called: resource.names[0] ?? resource.id,
            },
          }"
          >Estimate from this</NuxtLink
        >
      </p>
      <div class="figures">
        <span
          ><span class="big">{{ money(total, currency) }} {{ currencySign(currency) }}</span
          ><span class="label">in {{ months.length }} months, effective</span></span
        ><span v-if="lastMonth"
          ><b>{{ money(lastMonth.effective, currency) }} {{ currencySign(currency) }}</b
          ><span class="label">in {{ monthText(lastMonth.start) }}</span></span
        >
      </div>
      <div class="columns">
        <div>
          <TimeBars
            label="cost by month"
            :starts="months.map(m => m.start)"
            grain="month"
            :unit="currency"
            :series="[
              { name: 'billed', amounts: months.map(m => m.billed) },
              { name: 'effective', amounts: months.map(m => m.effective) },
            ]"
          />
          <h2 class="heading">Price parts, all that is loaded and the last {{ LATELY }} days with charges</h2>
          <div class="scroll" tabindex="0" role="group" aria-label="meters">
            <table class="ledger" data-testid="meters">
              <thead>
                <tr>
                  <th>what is charged</th>
                  <th class="n">quantity</th>
                  <th class="n">unit price</th>
                  <th class="n">cost</th>
                  <th>quantity lately</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="meter in resource.meters" :key="`${meter.skuId}${meter.unit}`">
                  <td>
                    {{ meter.words ?? meter.meter ?? 'without a SKU' }}<template v-if="meter.charged">, for {{ meter.charged }}</template
                    ><br /><NuxtLink
                      v-if="meter.skuId"
                      class="link"
                      :to="{ path: '/spend/of', query: { dimension: 'SkuId', value: meter.skuId } }"
                      >{{ meter.skuId }}</NuxtLink
                    >
                  </td>
                  <td class="n">{{ quantity(sum(meter.days.map(d => d.quantity))) }} {{ meter.unit ?? '' }}</td>
                  <td class="n">{{ unitPrice(meter) }}</td>
                  <td class="n">{{ money(sum(meter.days.map(d => d.amount)), currency) }}</td>
                  <td><SparkLine :amounts="lately(meter).map(d => d.quantity)" /></td>
                </tr>
                <tr class="total">
                  <td>Total</td>
                  <td />
                  <td />
                  <td class="n">{{ money(sum(resource.meters.flatMap(m => m.days.map(d => d.amount))), currency) }}</td>
                  <td />
                </tr>
              </tbody>
            </table>
          </div>
          <template v-if="report || asking.problem.value">
            <h2 class="heading">What its cloud says</h2>
            <p v-if="asking.problem.value" class="warn">{{ asking.problem.value.title }}: {{ asking.problem.value.detail }}</p>
            <template v-if="report">
              <p>At {{ report.by }} it is {{ report.status }} now{{ report.locks.length ? '' : ', and not locked' }}.</p>
              <p v-for="lock in report.locks" :key="lock.against" data-testid="lock">
                <b>Locked against {{ lock.against }}</b> since {{ dayText(lock.since) }} by {{ lock.by }}: {{ lock.why }}.
              </p>
              <p v-for="step in report.plan" :key="step.does" :class="{ warn: step.last?.outcome === 'refused' }" data-testid="planned">
                To {{ step.does }} {{ step.when
                }}<template v-if="step.last"
                  >; the last time, {{ timeText(step.last.at) }}, {{ outcomeWords[step.last.outcome]
                  }}<template v-if="step.last.why">: {{ step.last.why }}</template></template
                >.
              </p>
              <p v-for="m in report.measured" :key="m.what" class="measured" data-testid="measured">
                <SparkLine :amounts="m.days.map(d => String(d.amount))" /><span
                  ><b>{{ daily(m.days) }} {{ m.unit }}</b> {{ m.what }} a day, measured over {{ m.days.length }} days</span
                >
              </p>
            </template>
          </template>
          <template v-if="resource.createdBy || resource.protects || resource.created.length || resource.protectedBy.length">
            <h2 class="heading">What belongs together</h2>
            <p v-if="resource.createdBy">
              Made by
              <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: resource.createdBy.id } }">{{
                resource.createdBy.name ?? resource.createdBy.id
              }}</NuxtLink>
              ({{ resource.createdBy.type }}).
            </p>
            <p v-if="resource.protects">
              Protects
              <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: resource.protects.id } }">{{
                resource.protects.name ?? resource.protects.id
              }}</NuxtLink>
              ({{ resource.protects.type }}).
            </p>
            <div v-if="resource.created.length" class="scroll" tabindex="0" role="group" aria-label="what it made">
              <table class="ledger">
                <thead>
                  <tr>
                    <th>made by it, under other services too</th>
                    <th>type</th>
                    <th class="n">effective cost</th>
                  </tr>
                </thead>
                <tbody>
                  <tr v-for="made in resource.created" :key="made.id">
                    <td>
                      <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: made.id } }">{{ made.name ?? made.id }}</NuxtLink>
                    </td>
                    <td>{{ made.type }}</td>
                    <td class="n">{{ amounts(made.amounts) }}</td>
                  </tr>
                </tbody>
              </table>
            </div>
            <div v-if="resource.protectedBy.length" class="scroll" tabindex="0" role="group" aria-label="copies">
              <table class="ledger" data-testid="copies">
                <thead>
                  <tr>
                    <th>keeps copies of it</th>
                    <th>type</th>
                    <th class="n">effective cost</th>
                  </tr>
                </thead>
                <tbody>
                  <tr v-for="copy in resource.protectedBy" :key="copy.id">
                    <td>
                      <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: copy.id } }">{{ copy.name ?? copy.id }}</NuxtLink>
                    </td>
                    <td>{{ copy.type }}</td>
                    <td class="n">{{ amounts(copy.amounts) }}</td>
                  </tr>
                </tbody>
              </table>
            </div>
          </template>
        </div>
        <div>
          <h2 class="heading first">Whose it is</h2>
          <p v-if="resource.centre">
            Cost centre <b>{{ resource.centre.name }}</b>, owner {{ resource.centre.owner ?? 'nobody' }}; by the rule
            {{ resource.centre.rule }}.
          </p>
          <p v-else class="warn">No rule puts it on a cost centre. <NuxtLink class="link" to="/allocation">See the queue</NuxtLink></p>
          <p v-if="resource.commitments.length">Covered by {{ resource.commitments.join(', ') }}.</p>
          <template v-if="resource.opportunities.length"
            ><h2 class="heading">Can be saved</h2>
            <p v-for="o in resource.opportunities" :key="o.id">
              {{ o.what }}: {{ money(roundText(o.monthly), o.currency) }} {{ o.currency }} a month, {{ o.state }}.
              <NuxtLink class="link" to="/savings">Open Savings</NuxtLink>
            </p></template
          >
          <h2 class="heading">Tags</h2>
          <p v-if="!resource.tags.length" class="note">It has none, and inherits none.</p>
          <div v-else class="scroll" tabindex="0" role="group" aria-label="tags">
            <table class="ledger">
              <tbody>
                <tr v-for="tag in resource.tags" :key="tag.key + tag.value + tag.from">
                  <td>{{ tag.key }}</td>
                  <td>{{ tag.value }}</td>
                  <td class="minor">
                    {{ fromWords[tag.from]
                    }}<template v-if="tag.from === 'own'">, {{ dayText(tag.firstDay) }} to {{ dayText(tag.lastDay) }}</template>
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
          <template v-if="resource.actions.length"
            ><h2 class="heading">Done through Rain Barrel</h2>
            <ul>
              <li v-for="step in resource.actions" :key="step.at + step.what">
                <span class="minor">{{ timeText(step.at) }}, {{ step.who }}</span> {{ step.what }}: {{ step.outcome }}
              </li>
            </ul></template
          >
          <h2 class="heading">What happened</h2>
          <p v-if="resource.runs && resource.runs.hoursADay < ALL_DAY">
            Ran {{ quantity(resource.runs.hoursADay.toFixed(1)) }} of 24 hours a day, over {{ resource.runs.days }} days.
          </p>
          <ul>
            <li v-for="event in resource.events" :key="event.day + event.what">
              <span class="minor">{{ dayText(event.day) }}</span> {{ event.what }}
            </li>
          </ul>
          <h2 class="heading">Note</h2>
          <template v-if="writing">
            <textarea v-model="note" class="field area" rows="6" aria-label="Note, in Markdown" />
            <div class="acts">
              <button class="button main" @click="saveNote">Keep it</button
              ><button class="button" @click="writing = false">Leave it</button>
            </div></template
          >
          <template v-else>
            <!-- eslint-disable-next-line vue/no-v-html -- Markdown without HTML, made harmless -->
            <div v-if="resource.note?.body" class="marked" v-html="markdownHtml(resource.note.body)" />
            <p v-if="resource.note?.body" class="minor">{{ resource.note.who }}, {{ timeText(resource.note.savedAt) }}</p>
            <button class="link" @click="writing = true">{{ resource.note?.body ? 'Change it' : 'Write a note' }}</button></template
          >
        </div>
      </div>
    </template>
    <p v-else-if="id && !problem" class="note" role="status">Reading…</p>
  </div>
</template>

<style scoped>
.named {
  color: var(--ink);
  font-weight: 600;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
  gap: 34px;
  margin-top: 8px;
}
.heading {
  margin: 18px 0 4px;
}
.heading.first {
  margin-top: 0;
}
.measured {
  display: flex;
  gap: 12px;
  align-items: center;
}
.area {
  width: 100%;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 6px;
}
.marked :deep(ul) {
  list-style: disc;
  padding-left: 18px;
}
.marked :deep(a) {
  color: var(--act);
  text-decoration: underline;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
