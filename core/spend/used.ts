import { scaledText } from '../money/scaled'
import { monthEnd, monthStart, type Month } from '../time/day'
import { plainGroups, sumByCurrency, type Group } from './plain-groups'
import type { Cube } from './cube'
import type { CurrencyAmount, Narrowing } from './question'

/** What of a SKU a resource used in a month, with every digit. */
export type UsedLine = {
  provider: string
  region: string
  service: string
  sku: string
  resource: string | null
  resourceName: string | null
  quantity: string
}

const parts = ['ProviderName', 'RegionId', 'ServiceName', 'SkuId', 'ResourceId', 'ResourceName', 'ChargeCategory', 'ChargeClass']

/**
 * What ran in a month within a narrowing: the pricing quantity of each SKU by resource, from which an estimate can start. Purchases,
 * credits, tax and corrections are no use: they are counted only.
 */
export function usedIn(
  cube: Cube,
  { month, keep, leaveOut }: { month: Month; keep: Narrowing; leaveOut: Narrowing },
): { lines: UsedLine[]; listCost: CurrencyAmount[]; notUsage: number } {
  const groups = plainGroups(cube, {
    splitBy: parts,
    grain: null,
    start: monthStart(month),
    end: monthEnd(month),
    keep,
    leaveOut,
    measures: ['listCost', 'pricingQuantity'],
  })
  const used = groups.filter(isUse)
  return {
    lines: used.map(({ values, amounts }) => ({
      provider: values.ProviderName ?? '',
      region: values.RegionId ?? '',
      service: values.ServiceName ?? '',
      sku: values.SkuId!,
      resource: values.ResourceId ?? null,
      resourceName: values.ResourceName ?? null,
      quantity: scaledText(amounts[1]!),
    })),
    listCost: sumByCurrency(used.map(({ currency, amounts }) => ({ currency, amount: amounts[0]! }))),
    notUsage: groups.filter(group => !isUse(group)).reduce((n, group) => n + group.count, 0),
  }
}

const isUse = ({ values }: Group) => values.ChargeCategory === 'Usage' && values.ChargeClass === null && values.SkuId !== null
