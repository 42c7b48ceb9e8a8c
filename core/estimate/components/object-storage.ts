import { variantsOf } from '../../ratecard/find-price'
import type { PriceLine } from '../../ratecard/rate-card'
import { divide, input, multiply, type Working } from '../../working/working'
import { number, variantChoice } from './field'
import type { Builder, Charge, ComponentKind } from './kind'

const GB_IN_MB = 1000

export const objectClasses = (card: Parameters<typeof variantsOf>[0], region: string) => variantsOf(card, 'object-gb-month', region)

/** Thousands of something: requests and objects are priced so. */
export const thousands = (label: string, of: Working): Working => divide(`thousands of ${label}`, [of, input('in a thousand', 1000)])

/** The charge for each object that a class watches to move it by itself; none for other classes. */
export function watching(b: Builder, kind: string, gb: Working, objectMb: Working): Charge[] {
  const line = b.findLine('object-watch-1000', kind)
  return line
    ? [
        b.charge(
          'objects watched',
          line,
          thousands('objects', divide('objects', [multiply('MB', [gb, input('MB in a GB', GB_IN_MB)]), objectMb])),
        ),
      ]
    : []
}

/** A request or retrieval line of a class; undefined when it is not charged there. */
export const requestLine = (
  b: Builder,
  meter: 'object-write-1000' | 'object-read-1000' | 'object-retrieval-gb',
  kind: string,
): PriceLine | undefined => b.findLine(meter, kind)

/** Object storage: charged per GB kept, for every thousand writes and reads, and in colder classes for every GB fetched. */
export const objectStorage: ComponentKind = {
  kind: 'object-storage',
  label: 'Object storage',
  words: ['object storage', 'objects', 'object', 'bucket', 'storage account', 'blob', 'static files', 'images', 'storage'],
  needs: ['object-gb-month'],
  fields: [
    variantChoice('class', 'class', 'object-gb-month', { column: 'size', help: 'The colder, the cheaper to keep and the dearer to read.' }),
    number('storageGb', 'kept', { unit: 'GB', column: 'amount', max: 100_000_000, usual: '500', help: 'On average over the month.' }),
    number('writes', 'writes a month', { max: 1e12, whole: true, usual: '0', help: 'Each object put or listed is a write.' }),
    number('reads', 'reads a month', { max: 1e12, whole: true, usual: '0', help: 'Each object fetched is a read.' }),
    number('retrievedGb', 'fetched a month', { unit: 'GB', max: 100_000_000, usual: '0', help: 'Charged in the colder classes.' }),
    number('objectMb', 'size of an object', {
      unit: 'MB',
      min: 0.001,
      max: 5_000_000,
      usual: '4',
      help: 'On average; counts where objects are charged one by one.',
    }),
  ],
  price(b) {
    const kind = b.text('class')
    const kept = b.line('object-gb-month', kind, 'class')
    const gb = b.number('storageGb')
    const recurring = [b.charge('kept', kept, gb), ...watching(b, kind, gb, b.number('objectMb'))]
    for (const [name, meter] of [
      ['writes', 'object-write-1000'],
      ['reads', 'object-read-1000'],
    ] as const) {
      const line = requestLine(b, meter, kind)
      if (line) recurring.push(b.charge(name, line, thousands(name, b.number(name))))
      else if (b.typed(name).high.gt(0)) b.refuse(name, `${b.card.provider} has no price for ${name} of «${kind}» in ${b.region}`)
    }
    const retrieval = requestLine(b, 'object-retrieval-gb', kind)
    if (retrieval) recurring.push(b.charge('fetched', retrieval, b.number('retrievedGb')))
    const days = kept.includes?.minimumDays
    return {
      recurring,
      unitPrice: { value: kept.tiers[0]!.price, per: 'GB' },
      amounts: [{ unit: 'GB', quantity: gb }],
      notices:
        days !== undefined && Number(days) > 0
          ? [`«${kind}» charges at least ${days} days for every object, also when it is deleted before.`]
          : [],
    }
  },
}
