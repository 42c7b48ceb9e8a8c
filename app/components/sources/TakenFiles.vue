<script setup lang="ts">
/** What became of files that were dropped and are no delivery of charges, and one that waits to be reviewed. */
const sources = useSources()
const organisationFile = useOrganisationFile()
const data = useData()
async function useOrganisation() {
  const { name } = organisationFile.review!
  const said = await organisationFile.take()
  if (said === null) return
  sources.taken.push({ name, said, problem: null })
  await data.load()
}
</script>

<template>
  <template v-for="(file, i) in sources.taken" :key="i">
    <ProblemNote v-if="file.problem" :problem="file.problem" />
    <p v-else class="good">«{{ file.name }}» was taken: {{ file.said }}.</p>
  </template>
  <OrganisationReview v-if="organisationFile.review" @use="useOrganisation" />
</template>
