<script setup lang="ts">
/** Several sentences open at once: one is looked at, the others wait as they were. */
const spend = useSpend()
const sentences = useSentences()
const router = useRouter()
const route = useRoute()
const go = (query: Record<string, string | string[]>) => router.push({ path: '/spend', query })
function look(index: number) {
  if (index === sentences.at) return
  sentences.at = index
  void go(sentences.open[index]!.query)
}
function add() {
  if (spend.sentence) void go(sentences.add({ query: writeSentence(spend.sentence), title: sentenceTitle(spend.sentence, spend.period) }))
}
function close(index: number) {
  const next = sentences.close(index)
  if (next) void go(next)
}
const saving = ref(false)
watch(
  () => route.fullPath,
  () => {
    sentences.told = ''
  },
)
/** What is looked at, handed to Estimates: the month that the period begins in, with the narrowing. */
const estimateFromThis = computed(() => ({
  path: '/estimates',
  query: {
    month: spend.period.start.slice(0, 7),
    keep: JSON.stringify(keptWithSteps(spend.sentence!)),
    leaveOut: JSON.stringify(spend.sentence!.leaveOut),
  },
}))
/** What is looked at, with the path of the Steps, priced otherwise. */
const otherwiseThan = computed(() => {
  const { leaveOut, conditions } = spend.sentence!
  return otherwiseAddress({ keep: keptWithSteps(spend.sentence!), leaveOut, conditions })
})
</script>

<template>
  <div class="top">
    <PlaceNav place="Spend" />
    <p v-if="sentences.told" class="told" role="status">{{ sentences.told }} <NuxtLink to="/spend/saved" class="link">Saved</NuxtLink></p>
    <div class="open" role="group" aria-label="Open sentences">
      <template v-if="sentences.open.length > 1">
        <span v-for="(asked, i) in sentences.open" :key="i" class="one" :class="{ on: i === sentences.at }">
          <button class="title" :aria-current="i === sentences.at" :title="asked.title" @click="look(i)">{{ asked.title }}</button><button
            class="shut"
            :aria-label="`close ${asked.title}`"
            @click="close(i)"
          >
            ×
          </button>
        </span>
      </template>
      <NuxtLink v-if="spend.sentence && spend.isMoney" :to="estimateFromThis" class="link">Estimate from this</NuxtLink>
      <NuxtLink v-if="spend.sentence && spend.isMoney" :to="otherwiseThan" class="link">Otherwise?</NuxtLink>
      <button class="link" @click="add">Open another</button>
      <UPopover v-model:open="saving"
        ><button class="link">Save this sentence</button><template #content><SaveSentence @done="saving = false" /></template
      ></UPopover>
    </div>
  </div>
</template>

<style scoped>
.top {
  position: relative;
}
.told {
  background: var(--act-soft);
  padding: 3px 8px;
  border-radius: 4px;
}
.open {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 2px 10px;
  align-items: center;
  min-width: 0;
  margin-top: -33px;
  margin-bottom: 9px;
  padding-left: 430px;
}
@media (max-width: 1000px) {
  .open {
    margin-top: 0;
    padding-left: 0;
    justify-content: flex-start;
  }
}
.one {
  display: inline-flex;
  align-items: center;
  border: 1px solid var(--line-strong);
  border-bottom: 0;
  border-radius: 5px 5px 0 0;
  background: var(--paper-sunk);
  max-width: 210px;
}
.one.on {
  background: var(--paper-raised);
}
.title {
  min-height: 24px;
  padding: 0 4px 0 9px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 12px;
  color: var(--ink-2);
}
.on .title {
  color: var(--ink);
  font-weight: 600;
}
.shut {
  min-width: 24px;
  min-height: 24px;
  color: var(--ink-3);
}
.shut:hover {
  color: var(--bad);
}
</style>
