<script setup lang="ts">
import { differenceWords, isSamePlan, planDifference } from '../../../core/allocation/plan-difference'
import { planVersions } from '../../../shared/contracts/allocation'
import type { z } from 'zod'

/** Versions of cost centres and rules that were saved: each can be held against the newest, and put back as a draft. */
const allocation = useAllocation()
const closings = useClosings()
const { attempt, problem } = useAttempt()
const MOST = 12
const versions = shallowRef<z.infer<typeof planVersions>['versions'] | null>(null)
const compared = ref<{ version: number; words: string } | null>(null)
const look = () =>
  attempt(async () => {
    versions.value = versions.value ? null : (await client.get('allocation/versions', planVersions)).versions
  })
// what is saved anew is a version more
watch(
  () => allocation.saved?.version,
  () => {
    versions.value = null
  },
)
const planOf = async (version: number) => {
  await closings.learn(version)
  return closings.planOf(version)!
}
const compare = (version: number) =>
  attempt(async () => {
    const difference = planDifference(await planOf(version), toRaw(allocation.saved!.plan))
    compared.value = { version, words: isSamePlan(difference) ? 'the same as the newest' : `since then: ${differenceWords(difference)}` }
  })
const putBack = (version: number) =>
  attempt(async () => {
    await allocation.takeUp(structuredClone(toRaw(await planOf(version))))
  })
</script>

<template>
  <div>
    <button class="link" :aria-expanded="!!versions" @click="look">{{ versions ? 'Hide earlier versions' : 'Earlier versions' }}</button>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="versions && versions.length < 2" class="minor">There is no earlier version.</p>
    <ul v-else-if="versions" class="versions">
      <li v-for="one in versions.slice(1, 1 + MOST)" :key="one.version">
        <div class="line">
          <span>version {{ one.version }}, {{ one.who }}, {{ timeText(one.savedAt) }}</span>
          <span
            ><button class="link" :aria-label="`compare version ${one.version}`" @click="compare(one.version)">compare</button>
            <button class="link" :aria-label="`put version ${one.version} back`" @click="putBack(one.version)">put back</button></span
          >
        </div>
        <div v-if="compared?.version === one.version" class="minor">{{ compared.words }}</div>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.versions {
  list-style: none;
  padding: 0;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: baseline;
}
.line .link {
  margin-left: 8px;
}
</style>
