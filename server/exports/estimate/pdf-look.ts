import pdfmake from 'pdfmake'
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import sans from '@fontsource/public-sans/files/public-sans-latin-400-normal.woff'
import sansBold from '@fontsource/public-sans/files/public-sans-latin-600-normal.woff'
import sansMore from '@fontsource/public-sans/files/public-sans-latin-ext-400-normal.woff'
import sansMoreBold from '@fontsource/public-sans/files/public-sans-latin-ext-600-normal.woff'
import serif from '@fontsource/source-serif-4/files/source-serif-4-latin-600-normal.woff'
import { roundToMinor } from '../../../core/money/rounding'
import { money as moneyText, numberFormat, trueMinus } from '../../../shared/words/amounts'
import { Decimal, decimalText } from '../../../core/money/decimal'
import { sfntOf } from './sfnt'

const fonts = { sans: sans, 'sans-bold': sansBold, more: sansMore, 'more-bold': sansMoreBold, serif: serif }
/** The colours of the theme on paper. */
export const ink = '#16231f'
export const dim = '#5d6862'
const rule = '#cfc9ba'
export const moss = '#17695b'
export const ochre = '#97650f'
export const brick = '#a3402f'
export const hues = ['#17695b', '#97650f', '#4a2a7f', '#a3402f', '#2b6ca3', '#7a8b3c', '#8f4a7a', '#5d6862']

let ready = false
/** Makes the fonts known, once. */
export function setUp() {
  if (ready) return
  for (const [name, bytes] of Object.entries(fonts)) pdfmake.virtualfs.writeFileSync(name, sfntOf(bytes))
  pdfmake.setFonts({
    Sans: { normal: 'sans', bold: 'sans-bold', italics: 'sans', bolditalics: 'sans-bold' },
    More: { normal: 'more', bold: 'more-bold', italics: 'more', bolditalics: 'more-bold' },
    Serif: { normal: 'serif', bold: 'serif', italics: 'serif', bolditalics: 'serif' },
  })
  // a document asks nothing of the network nor of the disk
  pdfmake.setUrlAccessPolicy(() => false)
  pdfmake.setLocalAccessPolicy(name => name in fonts)
  ready = true
}

/** Letters that the first font file lacks are set in the second of the same face. */
export function runs(given: string): Content[] {
  const text = given.replace(/[\u2009\u202F]/g, ' ')
  return (text.match(/[\u0100-\u02AF\u1E00-\u1EFF]+|[^\u0100-\u02AF\u1E00-\u1EFF]+/gu) ?? ['']).map(part =>
    /^[\u0100-\u02AF\u1E00-\u1EFF]/u.test(part) ? { text: part, font: 'More' } : part,
  )
}
/** A paragraph. */
export const say = (text: string, more: object = {}): Content => ({ text: runs(text), ...more })

/** A short item stays on one line. It is also laid out at once and not word by word, which a table of hundreds of rows is quicker for. */
export const together = (item: string) => (item.length <= 32 ? item.replaceAll(' ', '\u00A0') : item)
/** A list whose items stay in one line where they are short. */
export const items = (list: readonly string[]) =>
  list
    .filter(Boolean)
    .flatMap(item => item.split(' · '))
    .map(together)
    .join('\u00A0· ')

/** An amount to the minor unit of its currency; a dash for nothing. */
export function money(text: string, currency: string): string {
  const rounded = roundToMinor(new Decimal(text), currency)
  return rounded.eq(0) ? '–' : moneyText(rounded.toFixed(), currency)
}
/** A number as short as it can be told. */
export const shortNumber = (value: Decimal) =>
  trueMinus(
    numberFormat('short', { maximumFractionDigits: 10 }).format(decimalText(value.round(value.abs().lt(1) ? 10 : 4)) as `${number}`),
  )

/** Lines of tables. */
export const layout = {
  hLineWidth: (i: number) => (i === 0 ? 0 : 0.5),
  vLineWidth: () => 0,
  hLineColor: () => rule,
  paddingTop: () => 3,
  paddingBottom: () => 3,
  paddingLeft: () => 0,
  paddingRight: () => 8,
}
/** A cell with a number. */
export const right = (text: string, more: object = {}): TableCell => ({
  ...(say(text, { alignment: 'right', noWrap: true, ...more }) as object),
})
/** The heading of a section. */
export const heading = (text: string): Content => ({ text: runs(text), font: 'Serif', fontSize: 13, color: ink, margin: [0, 16, 0, 5] })

/** An A4 document with its title and what it is about in the footer. */
export async function pdfFile(title: string, about: string, content: Content[]): Promise<Uint8Array> {
  setUp()
  const definition: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: [48, 52, 48, 52],
    defaultStyle: { font: 'Sans', fontSize: 9, color: ink, lineHeight: 1.15 },
    info: { title, creator: 'Rain Barrel' },
    footer: (page: number, pages: number) => ({
      columns: [say(about, { color: dim, fontSize: 8 }), { text: `${page} of ${pages}`, width: 'auto', color: dim, fontSize: 8 }],
      margin: [48, 16, 48, 0],
    }),
    content,
  }
  return new Uint8Array(await pdfmake.createPdf(definition).getBuffer())
}
