import type { H3Event } from 'h3'

/** Is aborted when whoever asked leaves before the answer is there. */
export function left(event: H3Event): AbortSignal {
  const gone = new AbortController()
  const { res } = event.node
  res.once('close', () => {
    if (!res.writableFinished) gone.abort()
  })
  return gone.signal
}
