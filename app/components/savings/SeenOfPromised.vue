<script setup lang="ts">
/** What is seen on the bill as a part of what was promised. */
const { promised, seen } = defineProps<{ promised: string; seen: string }>()
/** A gauge goes to twice of it. */
const MOST = 2
const share = computed(() => (Number(promised) > 0 ? Math.min(Number(seen) / Number(promised), MOST) : 0))
</script>

<template>
  <span class="share">
    <LevelGauge :width="90" :height="11" :used="share" tone="act" :label="`${percent(seen, promised)} of what was promised`" />
    {{ percent(seen, promised) }}
  </span>
</template>

<style scoped>
.share {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
