<script setup lang="ts">
import { withinSaid } from '../shared/words/within'

const session = useSession()
const data = useData()
const route = useRoute()
/** A page that is shown to someone outside: nothing of the house around it, and nothing else is asked of the server. */
const outside = computed(() => /^\/(shared|list)\//.test(route.path))
/** A page that shows nothing to whoever sees a part of the company. */
const isOfAll = computed(() => route.path.startsWith('/sources'))
const isForOthers = computed(() => isOfAll.value && !!session.person?.bound)
/** A figure that lacks charges says so on every page. */
const damaged = computed(() => {
  const periods = data.facts?.damaged ?? []
  if (!periods.length) return null
  return {
    type: '',
    status: 0,
    code: 'damaged-charges',
    title: 'Charges are missing from every figure',
    detail: `What is kept of ${periods.map(({ source, billingPeriodStart }) => `${source}, ${monthText(billingPeriodStart)}`).join('; ')} is damaged on disk. Load the files of ${periods.length === 1 ? 'that billing period' : 'those billing periods'} again under Sources.`,
  }
})
const failed = ref(false)
// what had the focus may be gone with the page before: it goes to the new page, never to nothing
const main = useTemplateRef<HTMLElement>('main')
useNuxtApp().hook('page:finish', () => {
  if (document.activeElement === document.body) main.value?.focus({ preventScroll: true })
})
onMounted(() => {
  if (outside.value) return
  session.load().catch(() => {
    failed.value = true // the page says what is wrong
  })
  void data.load()
})
</script>

<template>
  <UApp>
    <template v-if="!outside">
      <TopBar />
      <LevelStrip />
      <ProblemNote v-if="damaged" class="lacking" :problem="damaged" />
    </template>
    <main ref="main" tabindex="-1">
      <div v-if="isForOthers" class="page">
        <h1 class="sentence">Where charges come from is for those who see the whole company.</h1>
        <p class="note">
          {{ session.who }} sees {{ withinSaid(session.person!.bound!.map(({ name }) => name)) }}.
          <NuxtLink to="/spend" class="link">Read the spend</NuxtLink> of that, or work as someone else.
        </p>
      </div>
      <NuxtPage v-else-if="!isOfAll || session.known || failed" />
    </main>
  </UApp>
</template>

<style scoped>
main:focus {
  outline: none;
}
.lacking {
  margin-inline: 20px;
}
</style>
