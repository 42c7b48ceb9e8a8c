<script setup lang="ts">
import { resourceView, type ResourceView } from '../../../shared/contracts/resources'

/** One resource: what it is in plain words, what it costs and why, its tags and where they come from, what happened to it, whose it is. */
const route = useRoute()
const data = useData()
const resource = ref<ResourceView | null>(null)
const { attempt, problem } = useAttempt()
const id = computed(() => String(route.query.id ?? ''))
const load = () =>
  attempt(async () => {
    resource.value = await client.get(`resources?id=${encodeURIComponent(id.value)}`, resourceView)
  })
const everyResource = { path: '/spend', query: { by: 'ResourceId', period: 'all', each: 'month' } }
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
/** Fewer charged hours a day than this are worth a sentence. */
const ALL_DAY = 23.5
const fromWords = { own: 'its own', container: 'inherited from its container', account: 'inherited from its account' } as const
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
          >Open in Spend</NuxtLink
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
        ><NuxtLink class="link" :to="otherwiseAddress({ keep: { ResourceId: [resource.id] } })">What would it cost otherwise?</NuxtLink>
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
          <ResourceMeters :meters="resource.meters" :currency="currency" />
          <ResourceReported :id="id" />
          <ResourceFamily :resource="resource" />
        </div>
        <div>
          <h2 class="heading first">Owner</h2>
          <p v-if="resource.centre">
            Cost centre <b>{{ resource.centre.name }}</b>, owner {{ resource.centre.owner ?? 'nobody' }}; by the rule
            {{ resource.centre.rule }}.
          </p>
          <p v-else class="warn">No rule puts it on a cost centre. <NuxtLink class="link" to="/allocation">See the queue</NuxtLink></p>
          <p v-if="resource.commitments.length">Covered by {{ resource.commitments.join(', ') }}.</p>
          <ResourceSavings :id="id" />
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
          <ResourceNote :id="id" :note="resource.note" :attempt="attempt" @saved="load" />
        </div>
      </div>
    </template>
    <p v-else-if="id && !problem" class="note" role="status">Reading…</p>
  </div>
</template>

<style scoped>
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
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
