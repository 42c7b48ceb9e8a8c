import pdfmake from 'pdfmake'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { dim, ink, items, money, runs, say, setUp } from '../estimate/pdf-look'
import type { DocumentedSaving, OwnedSavings, SavingsDocument } from './savings-document'

/** What can be saved as PDF: a page for each owner, the steps of each saving below it. */
export async function savingsPdf({ title, facts, owners, notes }: SavingsDocument): Promise<Uint8Array> {
  setUp()
  const definition: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: [48, 52, 48, 52],
    defaultStyle: { font: 'Sans', fontSize: 9, color: ink, lineHeight: 1.15 },
    info: { title, creator: 'Rain Barrel' },
    footer: (page: number, pages: number) => ({
      columns: [
        say(items([title, ...facts]), { color: dim, fontSize: 8 }),
        { text: `${page} of ${pages}`, width: 'auto', color: dim, fontSize: 8 },
      ],
      margin: [48, 16, 48, 0],
    }),
    content: [
      ...owners.flatMap((one, at) => section(one, facts, at > 0)),
      ...(notes.length ? [say('Not counted', { bold: true, margin: [0, 14, 0, 2] })] : []),
      ...notes.map(note => say(note, { color: dim })),
    ],
  }
  return new Uint8Array(await pdfmake.createPdf(definition).getBuffer())
}

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
