<script setup lang="ts">
import type { DeliverySchedule, SavedSentence } from '../../../shared/contracts/spend-settings'
import { tableFormats } from '../../../shared/table-formats'

/** Keeps what is looked at under a name, own or shared, and sends it as a file by mail where wanted; or changes one that is kept. */
const props = defineProps<{ sentence?: SavedSentence }>()
const emit = defineEmits<{ done: [] }>()
const spend = useSpend()
const sentences = useSentences()
const name = ref(props.sentence?.name ?? (spend.sentence ? sentenceTitle(spend.sentence, spend.period) : ''))
const folder = ref(props.sentence?.folder ?? '')
const description = ref(props.sentence?.description ?? '')
const shared = ref(props.sentence?.shared ?? false)
const mails = ref(props.sentence?.schedule?.to.join(', ') ?? '')
const every = ref<DeliverySchedule['every']>(props.sentence?.schedule?.every ?? 'month')
const format = ref<DeliverySchedule['format']>(props.sentence?.schedule?.format ?? 'xlsx')
const { attempt, problem, busy } = useAttempt()
const folders = computed(() => [...new Set(sentences.saved.map(s => s.folder).filter(Boolean))])

async function keep() {
  const to = mails.value.split(/[,;\s]+/).filter(Boolean)
  const done = await attempt(() =>
    sentences.save(
      {
        name: name.value,
        folder: folder.value,
        description: description.value,
        shared: shared.value,
        body: props.sentence?.body ?? { query: writeSentence(spend.sentence!) },
        schedule: to.length ? { to, every: every.value, format: format.value } : null,
      },
      props.sentence?.id,
    ),
  )
  if (!done) return
  sentences.told = to.length ? `«${name.value}» is kept, and sent for the first time within a minute.` : `«${name.value}» is kept.`
  emit('done')
}
</script>

<template>
  <form class="box" @submit.prevent="keep">
    <label>Name <input v-model="name" class="field" required maxlength="120" /></label>
    <label>Folder <input v-model="folder" class="field" list="sentence-folders" maxlength="80" placeholder="none" /></label>
    <datalist id="sentence-folders"><option v-for="f in folders" :key="f" :value="f" /></datalist>
    <label>What it answers <textarea v-model="description" class="field" rows="2" maxlength="1000" /></label>
    <label class="tick"><input v-model="shared" type="checkbox" /> visible to everyone</label>
    <label>Send as a file to <input v-model="mails" class="field" placeholder="nobody: leave empty" /></label>
    <div v-if="mails.trim()" class="two">
      <label
        >every
        <select v-model="every" class="field">
          <option>day</option>
          <option>week</option>
          <option>month</option>
        </select></label
      >
      <label
        >as
        <select v-model="format" class="field">
          <option v-for="({ label }, ending) in tableFormats" :key="ending" :value="ending">{{ label }}</option>
        </select></label
      >
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <button class="button main" :disabled="busy || !name.trim()">Save</button>
  </form>
</template>

<style scoped>
.box {
  padding: 12px;
  width: 340px;
  display: grid;
  gap: 8px;
}
label {
  display: grid;
  font-size: 12px;
  color: var(--ink-3);
}
.field {
  font-size: 13.5px;
}
.tick {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 13.5px;
  color: var(--ink);
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.button {
  justify-self: start;
}
</style>
