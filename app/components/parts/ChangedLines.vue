<script setup lang="ts">
import type { MovedLines } from '../../../shared/contracts/imports'

/** Lines of a bill before and after, the largest change first. */
defineProps<{ moved: MovedLines }>()
</script>

<template>
  <div>
    <p v-if="!moved.lines.length" class="minor">No line differs.</p>
    <div v-else class="lines scroll" tabindex="0" role="group" aria-label="lines that changed">
      <table class="ledger" data-testid="moved">
        <thead>
          <tr>
            <th>line</th>
            <th class="n">before, now</th>
            <th class="n">change</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(line, i) in moved.lines" :key="i">
            <td>
              {{ [line.subAccount, line.service, line.sku].filter(Boolean).join(' · ') }}<br /><span class="minor">{{
                line.resource ?? 'no resource'
              }}</span>
            </td>
            <td class="n">{{ money(line.before, line.currency) }}<br />{{ money(line.after, line.currency) }}</td>
            <td class="n">{{ signedMoney(line.difference, line.currency) }} {{ line.currency }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="moved.rest" class="minor">and {{ count(moved.rest) }} lines more</p>
  </div>
</template>

<style scoped>
.lines {
  max-height: 260px;
  overflow: auto;
}
</style>
