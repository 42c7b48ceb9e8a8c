import 'pdfmake'

declare module 'pdfmake' {
  /** Where the library looks for the font files it is told of; its own types leave it out. */
  export const virtualfs: { writeFileSync(name: string, bytes: Uint8Array): void }
}
