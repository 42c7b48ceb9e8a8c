import type { BillDetector, Threshold } from '../detector'
import { paidUse } from '../bill/billed-resource'
import { findingOf } from '../bill/finding'
import { outsideLive } from '../bill/outside-live'

const saved: Threshold = { key: 'saved', label: 'it costs at least', unit: 'a month', usual: 5, least: 0, most: 1_000_000 }

/** What is sent between zones outside live, by the tag that tells environments apart: both ends could stand in one zone. */
export const zoneTransfer: BillDetector = {
  from: 'bill',
  detector: 'zone-transfer',
  label: 'Sent between zones outside live',
  thresholds: [saved],
  lookThrough: () => (resource, settings) => {
    const environment = outsideLive(resource)
    const use = environment === null ? null : paidUse(resource, 'transfer-zone-gb')
    if (!use) return []
    const finding = findingOf(resource, [{ use, how: 'gone', then: null }], {
      detector: zoneTransfer.detector,
      of: use.sku,
      title: `${resource.name} sends to another zone for ${environment}`,
      risk: 'some',
      minutesOfWork: 60,
      series: [
        {
          resourceId: resource.id,
          skus: [use.sku],
          label: 'sent to another zone',
          unit: 'GB sent',
          threshold: null,
          said: `Tagged ${environment}: within one zone nothing is charged for it.`,
        },
      ],
    })
    return finding && Number(finding.monthlySaving) >= settings.saved! ? [finding] : []
  },
  byHand: {
    steps: ({ resourceName }) => [
      `look what ${resourceName} sends to, and whether either end has to outlive a zone`,
      'put both ends into one zone, in a quiet hour',
    ],
    undo: 'Either end can be put into another zone again.',
  },
  says: open => `${open === 1 ? 'One thing outside live sends' : `${open} things outside live send`} to another zone.`,
}
