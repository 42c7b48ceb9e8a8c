import { defineEventHandler, getRequestHeader, type H3Event } from 'h3'
import { Problem } from '../problems/problem'
import { sendProblem } from '../http/send-problem'

const loopback = /^(::1|(::ffff:)?127(\.\d{1,3}){3})$/

const isOwnName = (host: string | undefined) => ['127.0.0.1', 'localhost', '[::1]', process.env.HOST].includes(host?.replace(/:\d+$/, ''))

/** A link: its secret is what lets one read what it shows, and answer to a list. */
const isShared = (path: string, method: string) =>
  method === 'GET'
    ? /^\/api\/v1\/shared(-savings)?\//.test(path)
    : method === 'POST' && /^\/api\/v1\/shared-savings\/[^/?]+\/answers$/.test(path)

const fromElsewhere = new Problem(
  'forbidden',
  'other-site',
  'The request comes from another site',
  'Pages of other sites may link here, and nothing else: open the address itself.',
)
/** Whether a page of another site asks, other than by a link that was followed; browsers say so (Fetch Metadata Request Headers). */
function isFromElsewhere(event: H3Event): boolean {
  const of = (name: string) => getRequestHeader(event, `sec-fetch-${name}`)
  if (of('site') !== 'cross-site' && of('site') !== 'same-site') return false
  return event.method !== 'GET' || of('mode') !== 'navigate' || of('dest') !== 'document'
}

/**
 * There is no sign-in: whoever reaches the server may choose whom to work as. So only this machine is answered, and a page of
 * another site cannot make a browser on this machine write.
 */
export default defineEventHandler(event => {
  if (isFromElsewhere(event)) return sendProblem(event, fromElsewhere)
  if (!event.path.startsWith('/api/') || event.path.startsWith('/api/v1/health') || isShared(event.path, event.method)) return
  if (!loopback.test(event.node.req.socket.remoteAddress ?? '')) {
    return sendProblem(
      event,
      new Problem(
        'forbidden',
        'this-machine-only',
        'Only this machine is answered',
        'Rain Barrel has no sign-in yet and answers requests from the machine it runs on only.',
      ),
    )
  }
  const origin = getRequestHeader(event, 'origin')
  const host = getRequestHeader(event, 'host')
  if (!isOwnName(host)) {
    return sendProblem(
      event,
      new Problem(
        'forbidden',
        'other-name',
        'Rain Barrel is not called that',
        `Open it by 127.0.0.1, localhost or the name in HOST, not by ${host}: another name may be another site's trick.`,
      ),
    )
  }
  if (origin && event.method !== 'GET' && origin !== `http://${host}`) {
    return sendProblem(
      event,
      new Problem(
        'forbidden',
        'other-site',
        'The request comes from another site',
        `Requests that change data are taken from this server's own pages only, not from ${origin}.`,
      ),
    )
  }
})
