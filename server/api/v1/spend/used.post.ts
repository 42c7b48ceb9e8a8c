import { scaledText } from '../../../../core/money/scaled'
import { sumByCurrency } from '../../../../core/spend/answer'
import { monthEnd, monthStart } from '../../../../core/time/day'
import { checkDimensions } from '../../../http/question'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

const parts = ['ProviderName', 'RegionId', 'ServiceName', 'SkuId', 'ResourceId', 'ResourceName', 'ChargeCategory', 'ChargeClass']

/** What ran in a month within a narrowing: the quantity of each SKU by resource, from which an estimate can start. */
export default route(operations.spend.used, async ({ cube, body }) => {
  const { month, keep, leaveOut } = body
  checkDimensions([...Object.keys(keep), ...Object.keys(leaveOut)])
  const { result } = await cube.ask('group', {
    splitBy: parts,
    grain: null,
    start: monthStart(month),
    end: monthEnd(month),
    keep,
    leaveOut,
    measures: ['listCost', 'pricingQuantity'],
  })
  const isUse = (group: (typeof result)[number]) =>
    group.values.ChargeCategory === 'Usage' && group.values.ChargeClass === null && group.values.SkuId !== null
  const used = result.filter(isUse)
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
    notUsage: result.filter(group => !isUse(group)).reduce((n, group) => n + group.count, 0),
  }
})
