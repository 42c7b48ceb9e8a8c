<script setup lang="ts">
import { withinSaid } from '../../../shared/words/within'

const session = useSession()
const colour = useColorMode()
const open = ref(false)
const themes = [
  { value: 'system', label: 'as the system has it' },
  { value: 'light', label: 'light' },
  { value: 'dark', label: 'dark' },
]

async function choose(id: string) {
  await session.workAs(id)
  open.value = false
}
</script>

<template>
  <UPopover v-model:open="open" :content="{ align: 'end' }">
    <button class="who" :aria-label="session.person ? `Working as ${session.who}` : 'Choose who you are working as'">
      {{ session.initials || '?' }}
    </button>
    <template #content>
      <div class="menu">
        <p class="minor title">Working as</p>
        <p v-if="!session.people.length" class="note title">No people yet: drop a file with cost centres under Sources.</p>
        <button
          v-for="person in session.people"
          :key="person.id"
          :aria-pressed="person.id === session.person?.id"
          class="option"
          @click="choose(person.id)"
        >
          <span class="tick">{{ person.id === session.person?.id ? '✓' : '' }}</span><span>{{ person.name }}</span
          ><span class="minor role">{{ person.role }}</span>
        </button>
        <p v-if="session.person?.bound" class="note title">
          {{ session.who }} sees {{ withinSaid(session.person.bound.map(({ name }) => name)) }}.
        </p>
        <hr />
        <p class="minor title">Paper</p>
        <button
          v-for="theme in themes"
          :key="theme.value"
          :aria-pressed="colour.preference === theme.value"
          class="option"
          @click="colour.preference = theme.value"
        >
          <span class="tick">{{ colour.preference === theme.value ? '✓' : '' }}</span><span>{{ theme.label }}</span>
        </button>
      </div>
    </template>
  </UPopover>
</template>

<style scoped>
.who {
  width: 28px;
  height: 28px;
  border-radius: 50%;
  background: var(--act-soft);
  color: var(--act);
  display: grid;
  place-items: center;
  font-weight: 650;
  font-size: 11px;
}
.menu {
  width: 300px;
  padding: 6px;
}
.title {
  padding: 4px 10px;
}
.tick {
  width: 12px;
  color: var(--act);
}
.role {
  margin-left: auto;
}
hr {
  border: 0;
  border-top: 1px solid var(--line);
  margin: 6px 0;
}
</style>
