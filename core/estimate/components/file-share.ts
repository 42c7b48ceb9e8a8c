import { input, largerOf, multiply, subtract } from '../../working/working'
import { countField, number, variantChoice } from './field'
import type { ComponentKind } from './kind'

/** Managed file shares: per GB they are large, and for throughput beyond what comes with the size. */
export const fileShare: ComponentKind = {
  kind: 'file-share',
  label: 'Managed file share',
  words: ['file share', 'shared files', 'network drive', 'nas', 'home folders', 'file server', 'files'],
  needs: ['share-gb-month'],
  fields: [
    variantChoice('class', 'class', 'share-gb-month', { column: 'size', help: 'Performance class.' }),
    number('storageGb', 'size of each', { unit: 'GB', column: 'amount', max: 10_000_000, usual: '250', help: 'Charged in full.' }),
    countField(),
    number('mbps', 'throughput', {
      unit: 'MB/s',
      max: 100_000,
      whole: true,
      usual: '0',
      help: 'Wanted for each; what the class includes costs nothing more.',
    }),
  ],
  price(b) {
    const kind = b.text('class')
    const line = b.line('share-gb-month', kind, 'class')
    const count = b.number('count')
    const gb = multiply('GB of all', [count, b.number('storageGb')], 'GB')
    const recurring = [b.charge(`share, ${kind}`, line, gb)]
    if (b.typed('mbps').high.gt(0)) {
      const beyond = largerOf('throughput beyond what is included, each', [
        subtract('less what is included', [b.number('mbps'), input('included', line.includes?.mbps ?? '0')]),
        input('none', 0),
      ])
      recurring.push(
        b.charge('throughput bought', b.line('share-throughput-month', kind, 'mbps'), multiply('throughput of all', [count, beyond])),
      )
    }
    return { recurring, unitPrice: { value: line.tiers[0]!.price, per: 'GB' }, count, amounts: [{ unit: 'GB', quantity: gb }] }
  },
}
