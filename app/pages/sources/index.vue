<script setup lang="ts">
const sources = useSources()
const data = useData()
useHead({ title: 'Sources · Rain Barrel' })
onMounted(() => sources.load())

const share = (load: { bytesDone: number; bytesTotal: number }) => (load.bytesTotal ? load.bytesDone / load.bytesTotal : 0)
const states = {
  checking: 'checking',
  loading: 'swapping in',
  choosing: 'choose',
  loaded: 'loaded',
  undone: 'undone',
  refused: 'refused',
  stopped: 'stopped',
} as const
</script>

<template>
  <div class="page">
    <PlaceNav place="Sources" />
    <h1 class="sentence">
      <template v-if="data.facts?.lastDay"
        >{{ count(data.facts.charges) }} charges from {{ sources.overview?.sources.length ?? 0 }} sources, from
        {{ dayText(data.facts.firstDay!) }} to {{ dayText(data.facts.lastDay) }}.</template
      >
      <template v-else>No charges are loaded yet.</template>
    </h1>
    <DropPlace @files="sources.drop($event)" />
    <ProblemNote v-if="sources.problem" :problem="sources.problem" :retry="() => sources.load()" />
    <TakenFiles />
    <WaitingDeliveries />
    <ConnectionBar @delivered="sources.load()" />

    <div class="columns" :class="{ open: sources.chosen }">
      <div>
        <SourceTable v-if="sources.overview?.sources.length" :list="sources.overview.sources" />
        <WatchList />
        <section v-if="sources.cards.length" class="section">
          <h2 class="heading">Rate cards <NuxtLink to="/estimates/rate-cards" class="link">versions and what changes</NuxtLink></h2>
          <table class="ledger">
            <thead>
              <tr>
                <th>provider</th>
                <th>holds from</th>
                <th class="n">prices</th>
                <th class="n">regions</th>
                <th>currency</th>
                <th>loaded</th>
                <th>by</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="card in sources.cards" :key="card.provider + card.validFrom">
                <td>{{ card.provider }}</td>
                <td>{{ dayText(card.validFrom) }}</td>
                <td class="n">{{ count(card.prices) }}</td>
                <td class="n">{{ card.regions.length }}</td>
                <td>{{ card.currency }}</td>
                <td>{{ timeText(card.loadedAt) }}</td>
                <td>{{ card.who }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section v-if="sources.overview?.loads.length" class="section">
          <h2 class="heading">Loads</h2>
          <table class="ledger" data-testid="loads">
            <thead>
              <tr>
                <th>state</th>
                <th>source</th>
                <th>files</th>
                <th class="n">rows</th>
                <th class="n">change, billed</th>
                <th>by</th>
                <th>when</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="load in sources.overview.loads" :key="load.id" class="acts" :class="{ chosen: sources.chosen?.id === load.id }">
                <td class="state">
                  <template v-if="load.state === 'checking' || load.state === 'loading'">
                    <LevelGauge
                      :width="90"
                      :height="10"
                      :used="Math.min(1, share(load))"
                      :label="`${Math.round(share(load) * 100)} % read`"
                    />
                    <button class="link" @click="sources.stop(load.id)">stop</button>
                  </template>
                  <button
                    v-else
                    class="link"
                    :class="{
                      bad: load.state === 'refused',
                      warn: load.state === 'stopped' || load.state === 'choosing' || load.state === 'undone',
                    }"
                    @click="sources.choose(load.id)"
                  >
                    {{ states[load.state]
                    }}<template v-if="load.errorCount"
                      >, {{ count(load.errorCount) }} {{ load.errorCount === 1 ? 'error' : 'errors' }}</template
                    >
                  </button>
                </td>
                <td>{{ load.source }}</td>
                <td class="files">{{ load.files.map(f => f.name).join(', ') }}</td>
                <td class="n">{{ count(load.rows) }}</td>
                <td class="n">
                  <div v-for="change in load.changes" :key="change.billingPeriodStart + change.currency">
                    {{ money(change.difference, change.currency) }} {{ change.currency }}
                  </div>
                </td>
                <td>{{ load.who }}</td>
                <td>{{ timeText(load.startedAt) }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <p v-if="!sources.overview && !sources.problem" class="note">Reading…</p>
        <p v-if="sources.overview && !sources.overview.loads.length && !sources.waiting.length" class="note">
          Drop the files of a billing period above: they are checked row by row, and nothing is loaded when anything is wrong.
        </p>
      </div>
      <LoadDetail v-if="sources.chosen" :load="sources.chosen" @close="sources.chosen = null" />
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  gap: 24px;
  grid-template-columns: minmax(0, 1fr);
}
.columns.open {
  grid-template-columns: minmax(0, 1fr) 400px;
}
.section {
  margin-top: 20px;
}
.files {
  overflow-wrap: anywhere;
  max-width: 260px;
}
.state {
  min-width: 120px;
}
.state > * {
  vertical-align: middle;
}
@media (max-width: 1000px) {
  .columns.open {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
