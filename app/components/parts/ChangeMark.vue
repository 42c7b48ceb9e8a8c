<script setup lang="ts">
/** A change against what it is compared with: direction by shape and sign, never by colour alone. */
const props = defineProps<{
  now?: string
  before?: string | null
  /** The change itself, where it is known; null when it is not defined. */ share?: number | null
  fresh?: boolean
}>()
const isNew = computed(() => (props.share === undefined ? props.before === null : props.fresh))
const share = computed(() => (isNew.value ? null : props.share === undefined ? changeShare(props.now!, props.before!) : props.share))
const text = computed(() => {
  if (isNew.value) return 'new'
  if (share.value === null) return '–'
  const size = Math.abs(share.value) * 100
  return `${size >= 1000 ? '>1,000' : size >= 100 ? size.toFixed(0) : size.toFixed(1)} %`
})
</script>

<template>
  <span class="change" :class="{ bad: share !== null && share > 0.1, good: share !== null && share < -0.1 }"
    ><template v-if="share !== null && Math.abs(share) >= 0.0005"
      ><span aria-hidden="true">{{ share > 0 ? '▲' : '▼' }}</span
      ><span class="sr-only">{{ share > 0 ? 'up' : 'down' }}</span> </template
    >{{ text }}</span
  >
</template>

<style scoped>
.change {
  font-size: 11.5px;
  color: var(--ink-3);
  white-space: nowrap;
}
.change.bad {
  color: var(--bad);
}
.change.good {
  color: var(--good);
}
</style>
