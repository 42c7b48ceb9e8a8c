<script setup lang="ts">
import type { ResourceView } from '../../../shared/contracts/resources'

/** What belongs together with a resource: what made it, what it made, what it protects, what keeps copies of it. */
defineProps<{ resource: ResourceView }>()
const amounts = (list: { currency: string; amount: string }[]) => list.map(a => `${money(a.amount, a.currency)} ${a.currency}`).join(' + ')
</script>

<template>
  <div v-if="resource.createdBy || resource.protects || resource.created.length || resource.protectedBy.length">
    <h2 class="heading">What belongs together</h2>
    <p v-if="resource.createdBy">
      Made by
      <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: resource.createdBy.id } }">{{
        resource.createdBy.name ?? resource.createdBy.id
      }}</NuxtLink>
      ({{ resource.createdBy.type }}).
    </p>
    <p v-if="resource.protects">
      Protects
      <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: resource.protects.id } }">{{
        resource.protects.name ?? resource.protects.id
      }}</NuxtLink>
      ({{ resource.protects.type }}).
    </p>
    <div v-if="resource.created.length" class="scroll" tabindex="0" role="group" aria-label="what it made">
      <table class="ledger">
        <thead>
          <tr>
            <th>made by it, under other services too</th>
            <th>type</th>
            <th class="n">effective cost</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="made in resource.created" :key="made.id">
            <td>
              <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: made.id } }">{{ made.name ?? made.id }}</NuxtLink>
            </td>
            <td>{{ made.type }}</td>
            <td class="n">{{ amounts(made.amounts) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="resource.protectedBy.length" class="scroll" tabindex="0" role="group" aria-label="copies">
      <table class="ledger" data-testid="copies">
        <thead>
          <tr>
            <th>keeps copies of it</th>
            <th>type</th>
            <th class="n">effective cost</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="copy in resource.protectedBy" :key="copy.id">
            <td>
              <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: copy.id } }">{{ copy.name ?? copy.id }}</NuxtLink>
            </td>
            <td>{{ copy.type }}</td>
            <td class="n">{{ amounts(copy.amounts) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.heading {
  margin: 18px 0 4px;
}
</style>
