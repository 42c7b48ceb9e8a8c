<script setup lang="ts">
/** What the period is held against: the one before, a year before, or two chosen days. */
const spend = useSpend()
const actions = useSpendActions()
const open = ref(false)
function choose(against: Sentence['against']) {
  open.value = false
  actions.go({ against })
}
const said = computed(() => (spend.compared ? periodText(spend.compared) : ''))
</script>

<template>
  <UPopover v-model:open="open">
    <button class="control" :aria-label="`against: ${said}`">{{ said }}</button>
    <template #content>
      <div class="box">
        <button type="button" class="option" :class="{ on: spend.sentence!.against === 'before' }" @click="choose('before')">
          the period before
        </button>
        <button type="button" class="option" :class="{ on: spend.sentence!.against === 'year' }" @click="choose('year')">
          the same days a year before
        </button>
        <DayRange :period="spend.compared" act="Compare" @choose="choose" />
      </div>
    </template>
  </UPopover>
</template>

<style scoped>
.box {
  padding: 6px;
  width: 410px;
}
</style>
