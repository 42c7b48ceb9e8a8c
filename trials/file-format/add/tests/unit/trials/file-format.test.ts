import { expect, it } from 'vitest'
import { tableWriters } from '../../../server/exports/tables'
import { tableFormat } from '../../../shared/contracts/spend-export'
import { deliverySchedule } from '../../../shared/contracts/spend-settings'
import { tableFormats } from '../../../shared/table-formats'

it('a format that was added is written, and may be asked for in exports and mails', async () => {
  const table = {
    title: 't',
    facts: [],
    heads: [
      { name: 'service', kind: 'text' as const },
      { name: 'cost', kind: 'amount' as const },
    ],
  }
  const bytes = await tableWriters.tsv.write({ ...table, rows: [['Disks', '1.50']], total: null })
  expect(new TextDecoder().decode(bytes)).toBe('service\tcost\nDisks\t1.50\n')
  expect([tableFormat.parse('tsv'), tableFormats.tsv.label]).toEqual(['tsv', 'TSV'])
  expect(deliverySchedule.parse({ to: ['a@b.example'], every: 'day', format: 'tsv' }).format).toBe('tsv')
})
