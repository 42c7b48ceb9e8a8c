<script setup lang="ts">
import { findKind } from '../../../../core/estimate/components'
import { patternFrom, patternSchema } from '../../../../core/estimate/pattern'
import { kept } from '../../../../shared/contracts/estimates'

/** Saves a part of the workload as a pattern: what is left open is asked for when the pattern is used. */
const emit = defineEmits<{ done: [] }>()
const store = useEstimate()
const part = ref(store.parts[0] ?? '')
const name = ref('')
const description = ref('')
const open = ref(new Set<string>())
const failed = ref('')
const rows = computed(() => store.estimate!.components.filter(c => c.part === part.value))
const fields = computed(() =>
  rows.value.flatMap(c =>
    (findKind(c.kind)?.fields ?? [])
      .filter(f => f.column && c.inputs[f.name] !== undefined)
      .map(f => ({
        key: `${c.id} ${f.name}`,
        component: c.id,
        field: f.name,
        label: `${findKind(c.kind)!.label}, ${f.label}`,
        value: shownInput(f, c.inputs[f.name]!),
      })),
  ),
)
async function save() {
  const pattern = patternFrom(
    crypto.randomUUID(),
    name.value.trim(),
    description.value.trim(),
    rows.value,
    fields.value.filter(f => open.value.has(f.key)),
  )
  const checked = patternSchema.safeParse(pattern)
  if (!checked.success) {
    failed.value = checked.error.issues.map(i => i.message).join('; ')
    return
  }
  try {
    await client.send('POST', 'patterns', pattern, kept)
    store.patterns = [...store.patterns, pattern]
    emit('done')
  } catch (error) {
    failed.value = problemOf(error).detail
  }
}
</script>

<template>
  <form class="box" @submit.prevent="save">
    <h2 class="heading">Save a part as a pattern</h2>
    <p v-if="!store.parts.length" class="minor">There is no part yet: add components first.</p>
    <template v-else>
      <div class="line">
        <label
          >part
          <select v-model="part" class="field">
            <option v-for="p in store.parts" :key="p">{{ p }}</option>
          </select></label
        ><label>name <input v-model="name" class="field" required maxlength="80" placeholder="what it is a pattern of" /></label
        ><label class="grow">what it is for <input v-model="description" class="field" maxlength="500" /></label
        ><button class="button main" :disabled="!name.trim()">Save the pattern</button>
      </div>
      <fieldset>
        <legend class="minor">left open, to be filled in when it is used</legend>
        <label v-for="f in fields" :key="f.key" class="open"
          ><input type="checkbox" :checked="open.has(f.key)" @change="open.has(f.key) ? open.delete(f.key) : open.add(f.key)" />
          {{ f.label }} <span class="minor">{{ f.value }}</span></label
        >
      </fieldset>
      <p v-if="failed" class="bad" role="alert">{{ failed }}</p>
    </template>
  </form>
</template>

<style scoped>
.box {
  display: grid;
  gap: 8px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: end;
}
.line label {
  display: grid;
  gap: 2px;
  font-size: 12px;
  color: var(--ink-3);
}
.grow {
  flex: 1;
  min-width: 200px;
}
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
}
.open {
  display: flex;
  gap: 6px;
  align-items: center;
  min-height: 24px;
}
</style>
