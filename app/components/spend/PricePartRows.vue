<script setup lang="ts">
import { manyOf } from '../../../core/text/many-of'
import type { PriceParts } from '../../../shared/contracts/spend'

/** Charges as quantity × unit price: rows of a table that add up to a total. */
defineProps<{
  parts: PriceParts['parts']
  /** What lies beyond the listed parts. */
  left: { count: number; amount: string } | null
  total: string
  currency: string
}>()
const skus = useSkuWords()
</script>

<template>
  <tr v-for="(part, i) in parts" :key="i">
    <td :title="part.skuId ?? ''">
      {{ (part.skuId && skus.words[part.skuId]?.words) || part.description || part.chargeCategory
      }}<span v-if="part.skuId && skus.words[part.skuId]" class="minor">, for {{ skus.words[part.skuId]!.charged }}</span
      ><br /><span class="minor">{{
        part.unitPrice === null
          ? manyOf(part.charges, 'charge')
          : `${quantity(part.quantity)} ${part.pricingUnit ?? ''} × ${fullPrice(part.unitPrice)}`
      }}</span>
    </td>
    <td class="n">{{ money(part.amount, part.currency) }}</td>
  </tr>
  <tr v-if="left">
    <td>the other {{ count(left.count) }}</td>
    <td class="n">{{ money(left.amount, currency) }}</td>
  </tr>
  <tr class="total">
    <td>{{ manyOf(parts.length + (left?.count ?? 0), 'part') }}</td>
    <td class="n">{{ money(total, currency) }} {{ currency }}</td>
  </tr>
</template>
