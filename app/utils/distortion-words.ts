import { distortionsOf } from '../../core/spend/distortions'
import type { AnswerRow } from '../../core/spend/question'
import { withValue, type Sentence } from '../../core/spend/sentence'
import { money } from '../../shared/words/amounts'

/** What makes a total other than it seems: credits that hide use, purchases, refunds, tax, with what one does about it. */
export type DistortionWords = { id: string; said: string; action: string; change: Partial<Sentence> }

/**
 * Credits, purchases and tax that make up more than a tenth of the usage, unless one looks at kinds of charges on purpose.
 * @param chargeKinds amounts by ChargeCategory.
 */
export function distortionWords(
  { keep, leaveOut, measure }: Pick<Sentence, 'keep' | 'leaveOut' | 'measure'>,
  chargeKinds: readonly AnswerRow[],
  currency: string,
): DistortionWords[] {
  if (keep.ChargeCategory || leaveOut.ChargeCategory) return []
  const said = (text: string) => `${money(text, currency)} ${currency}`
  return distortionsOf(chargeKinds, currency).map(({ what, amount, usage }): DistortionWords => {
    if (what === 'credits')
      return {
        id: 'less',
        said: `Credits and adjustments take ${said(amount)} off ${said(usage)} of usage.`,
        action: 'Look at usage alone',
        change: { keep: withValue(keep, 'ChargeCategory', 'Usage') },
      }
    if (what === 'purchases')
      return {
        id: 'purchases',
        said: `Purchases of ${said(amount)} stand beside ${said(usage)} of usage.`,
        action: 'Spread them over their term',
        change: measure === 'billedCost' ? { measure: 'effectiveCost' } : { leaveOut: withValue(leaveOut, 'ChargeCategory', 'Purchase') },
      }
    return {
      id: 'tax',
      said: `Tax of ${said(amount)} is in the total.`,
      action: 'Leave tax out',
      change: { leaveOut: withValue(leaveOut, 'ChargeCategory', 'Tax') },
    }
  })
}
