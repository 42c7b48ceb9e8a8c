import type { BillDetector } from '../detector'
import { paidNow, resourceKey } from '../bill/billed-resource'
import { findingOf } from '../bill/finding'
import { offersFor } from '../otherwise/cost-otherwise'
import type { Choice } from '../own/own-finds'

/** What somebody chose among what things would cost otherwise, as long as it saves anything. */
export const chosenOtherwise: BillDetector = {
  from: 'bill',
  detector: 'chosen-otherwise',
  label: 'Chosen among what it would cost otherwise',
  thresholds: [],
  goesBy: 'what somebody chose under Otherwise, as long as it saves anything',
  lookThrough({ own }) {
    const chosen = new Map<string, Choice[]>()
    for (const choice of own.chosen) {
      const key = resourceKey({ provider: choice.provider, id: choice.resourceId })
      chosen.set(key, [...(chosen.get(key) ?? []), choice])
    }
    return resource =>
      (chosen.get(resourceKey(resource)) ?? []).flatMap(({ sku, key }) => {
        const use = paidNow(resource, sku)
        const offer = use && offersFor(resource, use, own.context).find(one => one.key === key)
        // what is not offered any more, or has a part that nobody knows the cost of, promises nothing
        if (!offer || 'notOffered' in offer || offer.lacks.length) return []
        const finding = findingOf(
          resource,
          offer.changes,
          {
            detector: chosenOtherwise.detector,
            of: sku,
            title: `${resource.name} ${offer.kind === 'way to pay' ? 'paid as' : 'as'} «${offer.to}»`,
            risk: offer.asks.length ? 'some' : 'little',
            instruction: offer.instruction,
            minutesOfWork: MINUTES[offer.kind],
            series: [
              {
                resourceId: resource.id,
                skus: [sku],
                label: 'charged',
                unit: use.unit ?? 'units',
                threshold: null,
                said: [
                  `«${offer.to}» was chosen for it.`,
                  ...(offer.asks.length ? [`It has to hold that ${offer.asks.join('; ')}.`] : []),
                ].join(' '),
              },
            ],
          },
          offer.further,
        )
        return finding ? [finding] : []
      })
  },
  byHand: {
    steps: ({ title, resourceName }) => [
      `check that what has to hold for «${title}» does: it is listed beside its chart`,
      `change ${resourceName}, or how it is paid for, at its provider`,
    ],
    undo: 'A size or class can be changed back, and a move undone; a commitment is paid until its term ends.',
  },
  says: open => `${open === 1 ? 'One thing was' : `${open} things were`} chosen to be had otherwise.`,
}

/** Common practice, no source: half an hour to change or to buy, half a day to move. */
const MINUTES = { 'size or class': 30, 'way to pay': 30, region: 240, provider: 480 }
