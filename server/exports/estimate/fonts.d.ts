/** Font files are bundled into the thread that writes documents, as bytes. */
declare module '*.woff' {
  const bytes: Uint8Array
  export default bytes
}
