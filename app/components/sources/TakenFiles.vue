<script setup lang="ts">
/** What became of files that were dropped and are no delivery of charges, and one that waits to be reviewed. */
const sources = useSources()
const organisationFile = useOrganisationFile()
const factsFile = useFactsFile()
const data = useData()
/** Takes what was reviewed, and says what became of it. */
async function use(name: string, take: () => Promise<string | null>) {
  const said = await take()
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
  <OrganisationReview v-if="organisationFile.review" @use="use(organisationFile.review.name, organisationFile.take)" />
  <FactsReview v-if="factsFile.review" @use="use(factsFile.review.file, factsFile.take)" />
</template>
