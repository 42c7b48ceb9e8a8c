<script setup lang="ts">
import { dateFormats, type Mapping } from '../../../core/focus/mapping/mapping'

/** How a file that is no FOCUS is written: what parts its columns, its numbers, its dates. */
const { mapping } = defineProps<{ mapping: Mapping }>()
const emit = defineEmits<{ change: [mapping: Mapping] }>()
const valueOf = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
const set = (name: 'delimiter' | 'encoding' | 'dateFormat' | 'lasts' | 'decimal' | 'thousands', event: Event) =>
  emit('change', { ...mapping, [name]: valueOf(event) })
const setSkipped = (event: Event) => emit('change', { ...mapping, skipLines: Number(valueOf(event)) || 0 })
</script>

<template>
  <div class="ways">
    <label
      >columns parted by
      <select class="field" :value="mapping.delimiter" @change="set('delimiter', $event)">
        <option value=",">comma</option>
        <option value=";">semicolon</option>
        <option value="&#9;">tab</option>
        <option value="|">bar</option>
      </select></label
    >
    <label
      >lines above the header
      <input v-held="mapping.skipLines" class="field short" type="number" min="0" max="100" @change="setSkipped($event)"
    /></label>
    <label
      >encoding
      <select class="field" :value="mapping.encoding" @change="set('encoding', $event)">
        <option value="utf-8">UTF-8</option>
        <option value="windows-1252">Windows-1252</option>
        <option value="utf-16le">UTF-16</option>
      </select></label
    >
    <label
      >dates
      <select class="field" :value="mapping.dateFormat" @change="set('dateFormat', $event)">
        <option v-for="format in dateFormats" :key="format">{{ format }}</option>
      </select></label
    >
    <label
      >a charge lasts
      <select class="field" :value="mapping.lasts" @change="set('lasts', $event)">
        <option value="hour">an hour</option>
        <option value="day">a day</option>
        <option value="month">a month</option>
      </select></label
    >
    <label
      >decimals after
      <select class="field" :value="mapping.decimal" @change="set('decimal', $event)">
        <option value=".">a point</option>
        <option value=",">a comma</option>
      </select></label
    >
    <label
      >thousands by
      <select class="field" :value="mapping.thousands" @change="set('thousands', $event)">
        <option value="">nothing</option>
        <option value=",">comma</option>
        <option value=".">point</option>
        <option value=" ">space</option>
        <option value="'">apostrophe</option>
      </select></label
    >
  </div>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  margin: 6px 0 10px;
}
.ways label {
  display: grid;
  font-size: 12px;
  color: var(--ink-3);
}
.short {
  width: 84px;
}
</style>
