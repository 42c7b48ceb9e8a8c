import { extractText, getDocumentProxy } from 'unpdf'

/** The words of a PDF as another program reads them, blanks of every kind as one blank. */
export async function pdfText(bytes: Uint8Array): Promise<string> {
  const { text } = await extractText(await getDocumentProxy(new Uint8Array(bytes), { verbosity: 0 }), { mergePages: true })
  return text.replace(/\s+/g, ' ')
}
