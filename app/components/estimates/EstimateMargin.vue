<script setup lang="ts">
/**
 * Beside the sheet: the target and what closes the gap, what is likely missing, how sure the total is, what nobody has confirmed, and
 * terms.
 */
const store = useEstimate()
const analysis = useAnalysis()
</script>

<template>
  <aside class="margin">
    <section v-if="store.workings" aria-label="Workings">
      <div class="line">
        <h2 class="heading">Workings</h2>
        <button class="link" @click="store.explained = null">close</button>
      </div>
      <p class="minor">{{ store.workings.title }}</p>
      <WorkingsTree :working="store.workings.working" :currency="store.workings.unit" />
    </section>
    <p v-if="analysis.failed.value" class="bad" role="alert">
      What takes longer could not be worked out: {{ analysis.failed.value }}. The sheet is right all the same; open the page again.
    </p>
    <TargetSection :closers="analysis.closers.value" />
    <BlindSpotList :sizes="analysis.sizes.value" />
    <HowSure :simulated="analysis.simulated.value" :drawn="analysis.drawn.value" />
    <AssumptionList :assumptions="analysis.assumptions.value" />
    <TermsSection />
  </aside>
</template>

<style scoped>
.margin {
  contain: layout paint;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
  align-content: start;
}
.margin :deep(section) {
  border-bottom: 1px solid var(--line);
  padding-bottom: 10px;
}
.margin :deep(.line) {
  display: flex;
  gap: 10px;
  align-items: center;
}
.margin :deep(.line h2),
.margin :deep(.line b) {
  flex: 1;
}
.margin :deep(.line b) {
  font-weight: 560;
}
.margin :deep(.target) {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-top: 4px;
}
.margin :deep(.target .field) {
  width: 90px;
  text-align: right;
}
.margin :deep(.keep) {
  min-height: 17px;
  font-size: 12px;
}
</style>
