import { createServer, type Server } from 'node:http'
import { inboxPage } from '../inbox-page'

export type ReceivedMessage = { id: string; text: string }

/**
 * A small chat: takes messages at its webhook (`POST /hook`, one of an id once), and shows what has come as a page, and at `/messages`.
 */
export function chatServer(): { http: Server; received: ReceivedMessage[] } {
  const received: ReceivedMessage[] = []
  const http = createServer((request, response) => {
    const say = (status: number, body: object) => {
      response.writeHead(status, { 'content-type': 'application/json' })
      response.end(JSON.stringify(body))
    }
    if (request.method === 'POST') {
      const chunks: Buffer[] = []
      request.on('data', (chunk: Buffer) => chunks.push(chunk))
      request.on('end', () => {
        const { id, text } = JSON.parse(Buffer.concat(chunks).toString() || '{}') as Partial<ReceivedMessage>
        if (typeof text !== 'string' || typeof id !== 'string') return say(400, { error: 'send a text and an id' })
        if (!received.some(one => one.id === id)) received.unshift({ id, text })
        return say(200, {})
      })
      return
    }
    if (request.url === '/messages') return say(200, { messages: received })
    response.setHeader('content-type', 'text/html; charset=utf-8')
    response.end(
      inboxPage(
        'The chat of Skerry Lines',
        received.map(({ text }) => ({ for: 'everybody', about: text.split('\n')[0]!, text: text.split('\n').slice(1).join('\n') })),
      ),
    )
  })
  return { http, received }
}
