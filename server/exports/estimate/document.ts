import type { Writer } from './writer'

/** The document itself, as a link keeps it. */
export const document: Writer = { format: 'document', write: made => new TextEncoder().encode(JSON.stringify(made)) }
