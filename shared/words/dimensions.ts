import { COST_CENTRE } from '../../core/spend/dimension'
import { dimensionOf } from '../../core/spend/dimensions'
import { dimensionGroups, type DimensionGroup } from '../../core/spend/dimensions/kind'
import { tagDimension } from '../../core/focus/star'

/** The dimensions most looked at, first in every list. */
export const usualDimensions = [
  COST_CENTRE,
  'ProviderName',
  'SubAccountName',
  'ServiceName',
  'RegionId',
  'SkuMeter',
  'SkuId',
  'ResourceId',
  'ChargeCategory',
]

export { companionOf, withCompanions } from '../../core/spend/companions'

/** How a dimension is called in a sentence. */
export const dimensionLabel = (dimension: string): string => dimensionOf(dimension)?.label ?? dimension

/** A value as it is shown; money without a value is named too. */
export const valueLabel = (dimension: string, value: string | null): string => value ?? dimensionOf(dimension)?.none ?? `no ${dimension}`

/** The heading a dimension stands under in lists. */
export const dimensionGroup = (dimension: string): DimensionGroup => dimensionOf(dimension)?.group ?? 'others'
export { dimensionGroups, tagDimension }
