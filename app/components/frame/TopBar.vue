<script setup lang="ts">
const route = useRoute()
const session = useSession()
/** Where charges come from is for those who see all of them. */
const shown = computed(() => placesFor(!session.person?.bound).map(({ name, pages: [{ to }] }) => ({ name, to })))
</script>

<template>
  <header class="top">
    <NuxtLink to="/" class="mark" aria-label="Rain Barrel, start"><BrandMark /> Rain Barrel</NuxtLink>
    <nav aria-label="Places">
      <NuxtLink
        v-for="place in shown"
        :key="place.to"
        :to="place.to"
        class="place"
        :class="{ on: route.path.startsWith(place.to) }"
        :aria-current="route.path.startsWith(place.to) ? 'page' : undefined"
        >{{ place.name }}</NuxtLink
      >
    </nav>
    <div class="right">
      <JumpBox />
      <KeysHelp />
      <PersonMenu />
    </div>
  </header>
</template>

<style scoped>
.top {
  min-height: 44px;
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 0 20px;
  border-bottom: 1px solid var(--line);
  flex-wrap: wrap;
}
.mark {
  display: flex;
  align-items: center;
  gap: 8px;
  font: 600 17px var(--serif);
  margin-right: 26px;
  letter-spacing: -0.01em;
  color: var(--ink);
}
nav {
  display: flex;
  overflow-x: auto;
}
.place {
  padding: 0 12px;
  height: 44px;
  display: flex;
  align-items: center;
  color: var(--ink-2);
  font-weight: 500;
  font-size: 13.5px;
  position: relative;
}
.place:hover {
  color: var(--ink);
}
.place.on {
  color: var(--ink);
  font-weight: 650;
}
.place.on::after {
  content: '';
  position: absolute;
  left: 12px;
  right: 12px;
  bottom: 0;
  height: 3px;
  background: var(--act);
  border-radius: 3px 3px 0 0;
}
.right {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 10px;
}
@media (max-width: 700px) {
  .top {
    padding: 8px 12px 4px;
  }
  .mark {
    margin-right: auto;
  }
  .right {
    order: 1;
  }
  nav {
    order: 2;
    flex-basis: 100%;
  }
  .place {
    padding: 0 9px;
    height: 40px;
  }
  .place.on::after {
    left: 9px;
    right: 9px;
  }
}
</style>
