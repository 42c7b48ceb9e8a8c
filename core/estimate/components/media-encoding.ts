import { number, variantChoice, words } from './field'
import type { ComponentKind } from './kind'

const byMinute = 'per minute'

/** Media encoding: per minute or per GB that is put out, with indexing of speech and pictures on top. */
export const mediaEncoding: ComponentKind = {
  kind: 'media-encoding',
  label: 'Media encoding',
  words: ['media', 'video', 'encoding', 'transcoding', 'stream', 'indexing'],
  needs: ['encoding-minute'],
  fields: [
    variantChoice('quality', 'quality', 'encoding-minute', { column: 'size', help: 'Resolution that is put out.' }),
    words(
      'by',
      'charged',
      [byMinute, 'per GB put out'],
      'The two are offered side by side; long films of little movement are cheaper per GB.',
    ),
    number('minutes', 'minutes a month', { unit: 'min', column: 'amount', max: 1e9, usual: '600', help: 'Put out; each quality counts.' }),
    number('outputGb', 'GB put out', { unit: 'GB', max: 10_000_000, usual: '30', help: 'Counts where it is charged per GB.' }),
    number('indexedMinutes', 'indexed', {
      unit: 'min',
      max: 1e9,
      usual: '0',
      help: 'Minutes whose speech and pictures are made searchable.',
    }),
  ],
  price(b) {
    const quality = b.text('quality')
    const minutely = b.text('by') === byMinute
    const line = b.line(minutely ? 'encoding-minute' : 'encoding-gb', quality, 'by')
    const index = b.findLine('indexing-minute')
    if (!index && b.typed('indexedMinutes').high.gt(0)) b.refuse('indexedMinutes', `${b.card.provider} indexes no media in ${b.region}`)
    return {
      recurring: [
        b.charge(`encoding, ${quality}`, line, b.number(minutely ? 'minutes' : 'outputGb')),
        ...(index ? [b.charge('indexing', index, b.number('indexedMinutes'))] : []),
      ],
      unitPrice: { value: line.tiers[0]!.price, per: minutely ? 'min' : 'GB' },
    }
  },
}
