import { vi } from 'vitest'

export type Asked = { method: string; path: string; body: unknown }
type Reply = { status?: number; body: unknown } | Promise<{ status?: number; body: unknown }>

/**
 * Stands where the server would: answers what the interface asks, by method and the path behind `/api/v1/`. What has no answer fails.
 * @returns what was asked so far, in order.
 */
export function answering(answers: Record<string, (asked: Asked) => Reply>): Asked[] {
  const log: Asked[] = []
  vi.stubGlobal('fetch', async (url: string, { method = 'GET', body, signal }: RequestInit = {}) => {
    const asked = { method, path: url.replace('/api/v1/', ''), body: typeof body === 'string' ? (JSON.parse(body) as unknown) : body }
    log.push(asked)
    const answer = answers[`${method} ${asked.path.split('?')[0]}`]
    if (!answer) throw new TypeError(`nobody answers ${method} ${asked.path}`)
    const { status = 200, body: reply } = await answer(asked)
    if (signal?.aborted) throw new DOMException('aborted', 'AbortError')
    return new Response(JSON.stringify(reply), { status })
  })
  return log
}

/** A refusal as the server words it. */
export const refusal = (status: number, code: string, detail: string) => ({
  status,
  body: { type: `urn:rain-barrel:problem:${code}`, title: 'refused', status, code, detail },
})
