<script setup lang="ts">
const session = useSession()
const data = useData()
onMounted(() => {
  void session.load().catch(() => {})
  void data.load()
})
</script>

<template>
  <UApp>
    <TopBar />
    <LevelStrip />
    <main>
      <NuxtPage />
    </main>
  </UApp>
</template>
