<script setup lang="ts">
import type { ProblemDetails } from '../../../shared/contracts/common'

/** A failure in words, with a way to try again. */
defineProps<{ problem: ProblemDetails; retry?: () => void }>()
</script>

<template>
  <div class="problem" role="alert">
    <b>{{ problem.title }}.</b> {{ problem.detail }}
    <slot />
    <button v-if="retry" class="link" @click="retry()">Try again</button>
  </div>
</template>

<style scoped>
.problem {
  background: var(--bad-soft);
  color: var(--ink);
  border-left: 3px solid var(--bad);
  padding: 8px 12px;
  margin: 8px 0;
  border-radius: 3px;
}
.problem b {
  color: var(--bad);
}
.problem .link {
  margin-left: 8px;
}
</style>
