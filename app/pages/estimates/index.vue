<script setup lang="ts">
const session = useSession()
const estimates = useEstimateList()
const { problem, attempt } = useAttempt()
useHead({ title: 'Estimates · Rain Barrel' })
const load = () => attempt(() => estimates.load())
onMounted(load)
const list = computed(() => estimates.list)
</script>

<template>
  <div class="page">
    <PlaceNav place="Estimates" />
    <h1 class="sentence">
      {{
        list?.length
          ? `${count(list.length)} ${list.length === 1 ? 'estimate' : 'estimates'}, last saved first.`
          : 'Price a workload before it is built.'
      }}
    </h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="list ? undefined : load" />
    <p v-if="!list && !problem" class="note" role="status">Reading…</p>
    <template v-if="list">
      <BeginEstimate v-if="estimates.cards.length" :attempt="attempt" />
      <NothingLoaded v-else missing="rate card" />
      <EstimateTable v-if="list.length" :attempt="attempt" />
      <p v-else-if="estimates.cards.length" class="note">
        None yet. Give one a name and begin.<template v-if="session.person?.bound">
          Estimates of people who see more than you come as a link or a file.</template
        >
      </p>
    </template>
  </div>
</template>
