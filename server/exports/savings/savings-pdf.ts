import type { Content } from 'pdfmake/interfaces'
import { dim, items, money, pdfFile, runs, say } from '../estimate/pdf-look'
import type { DocumentedSaving, OwnedSavings, SavingsDocument } from './savings-document'

/** What can be saved as PDF: a page for each owner, the steps of each saving below it. */
export const savingsPdf = ({ title, facts, owners, notes }: SavingsDocument): Promise<Uint8Array> =>
  pdfFile(title, items([title, ...facts]), [
    ...owners.flatMap((one, at) => section(one, facts, at > 0)),
    ...(notes.length ? [say('Not counted', { bold: true, margin: [0, 14, 0, 2] })] : []),
    ...notes.map(note => say(note, { color: dim })),
  ])

function section({ owner, total, items: savings }: OwnedSavings, facts: readonly string[], isNext: boolean): Content[] {
  const count = savings.length === 1 ? 'one saving' : `${savings.length} savings`
  const together = total ? `${money(total.amount, total.currency)} ${total.currency} a month, each amount once` : 'in no total'
  return [
    {
      text: runs(owner === null ? 'What can be saved, of nobody' : `What can be saved, for ${owner}`),
      ...{ font: 'Serif', fontSize: 20, margin: [0, 0, 0, 4] as [number, number, number, number] },
      ...(isNext && { pageBreak: 'before' as const }),
    },
    say(items([count, together, ...facts]), { color: dim, fontSize: 8.5, margin: [0, 0, 0, 8] }),
    ...savings.flatMap(saving),
  ]
}

function saving({ title, amount, currency, facts, said, steps, undo }: DocumentedSaving): Content[] {
  return [
    {
      columns: [
        say(title, { bold: true, fontSize: 10.5 }),
        { text: `${money(amount, currency)} ${currency} a month`, width: 'auto', bold: true },
      ],
      ...{ columnGap: 12, margin: [0, 8, 0, 0] as [number, number, number, number] },
    },
    say(items(facts), { color: dim, fontSize: 8.5 }),
    ...said.map(words => say(words)),
    { ol: steps.map(step => say(step)), margin: [0, 2, 0, 0] },
    ...(undo === null ? [] : [say(undo, { color: dim })]),
  ]
}
