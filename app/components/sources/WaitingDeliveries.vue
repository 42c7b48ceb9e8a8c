<script setup lang="ts">
const sources = useSources()
const bytes = (files: File[]) => files.reduce((total, file) => total + file.size, 0)
const mapped = computed(() => sources.waiting.find(w => w.key === sources.mapping && w.text !== null) ?? null)
const remove = (key: string) => {
  sources.waiting = sources.waiting.filter(w => w.key !== key)
}
const unmapped = computed(() => sources.waiting.some(w => w.text !== null && !sources.isMapped(w)))
const unnamed = computed(() => sources.waiting.some(w => w.source.trim() === ''))
</script>

<template>
  <section v-if="sources.waiting.length" class="waiting" aria-label="To be loaded">
    <h2 class="heading">To be loaded</h2>
    <p class="minor">
      Files for one source and billing period are one delivery: the whole period to date. It replaces what is loaded for that period.
    </p>
    <table class="ledger">
      <thead>
        <tr>
          <th>source</th>
          <th>billing period</th>
          <th>files</th>
          <th class="n">size</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="delivery in sources.waiting" :key="delivery.key">
          <td><input v-model="delivery.source" class="field" :class="{ wrong: !delivery.source.trim() }" aria-label="Source" /></td>
          <td>{{ delivery.billingPeriodStart ? monthText(delivery.billingPeriodStart) : 'said by the file' }}</td>
          <td class="files">
            {{ delivery.files.map(f => f.name).join(', ')
            }}<template v-if="delivery.text !== null"
              ><br /><button class="link" @click="sources.mapping = delivery.key">
                {{ sources.isMapped(delivery) ? 'not FOCUS: mapped, look at it' : 'not FOCUS: map its columns' }}
              </button></template
            >
          </td>
          <td class="n">{{ bytesText(bytes(delivery.files)) }}</td>
          <td class="n">
            <button class="link" :aria-label="`Do not load ${delivery.files.map(f => f.name).join(', ')}`" @click="remove(delivery.key)">
              remove
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <MappingPanel v-if="mapped" :key="mapped.key" :delivery="mapped" />
    <div class="acts">
      <button class="button main" :disabled="sources.sending || unnamed || unmapped" @click="sources.sendAll()">
        {{
          sources.sending
            ? 'Sending…'
            : sources.waiting.length === 1
              ? 'Check and load'
              : `Check and load ${sources.waiting.length} deliveries`
        }}
      </button>
      <span v-if="unmapped" class="warn">One file is not FOCUS: map its columns first.</span>
      <span v-if="unnamed" class="bad">Name the source of each delivery.</span>
    </div>
  </section>
</template>

<style scoped>
.waiting {
  margin-bottom: 18px;
  max-width: 1240px;
}
.files {
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-top: 8px;
}
</style>
