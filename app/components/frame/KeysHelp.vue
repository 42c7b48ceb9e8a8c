<script setup lang="ts">
/** Lists the keys; `?` opens it. Single keys act only outside fields and can be switched off here. */
const keys = useKeys()
const open = ref(false)
const always = [
  { key: 'Tab', what: 'to the next control' },
  { key: 'arrows', what: 'move in the Steps, the chart and the sheet' },
  { key: 'Enter', what: 'opens or acts' },
  { key: 'Esc', what: 'closes, or steps back' },
]
useSingleKey(
  '?',
  () => {
    open.value = true
  },
  'this list',
)
</script>

<template>
  <UModal v-model:open="open" title="Keys" :ui="{ content: 'max-w-md' }">
    <button class="help" aria-label="Keys"><span class="key">?</span></button>
    <template #body>
      <label class="switch"><input v-model="keys.enabled" type="checkbox" /> Single keys act (outside fields)</label>
      <table class="ledger">
        <tbody>
          <tr v-for="entry in [...keys.listed, ...always]" :key="entry.key">
            <td>
              <span class="key">{{ entry.key }}</span>
            </td>
            <td>{{ entry.what }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </UModal>
</template>

<style scoped>
.help {
  min-width: 28px;
  min-height: 28px;
}
.switch {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 10px;
}
</style>
