import { defineEventHandler, getRequestHeader } from 'h3'
import { Problem } from '../http/problem'
import { sendProblem } from '../http/route'

const loopback = /^(::1|(::ffff:)?127(\.\d{1,3}){3})$/

/**
 * There is no sign-in: whoever reaches the server may choose whom to work as. So only this machine is answered, and a page of
 * another site cannot make a browser on this machine write.
 */
export default defineEventHandler((event) => {
  if (!event.path.startsWith('/api/') || event.path.startsWith('/api/v1/health')) return
  if (!loopback.test(event.node.req.socket.remoteAddress ?? '')) {
    return sendProblem(event, new Problem(403, 'this-machine-only', 'Only this machine is answered', 'Rain Barrel has no sign-in yet and answers requests from the machine it runs on only.'))
  }
  const origin = getRequestHeader(event, 'origin')
  if (origin && event.method !== 'GET' && new URL(origin).host !== getRequestHeader(event, 'host')) {
    return sendProblem(event, new Problem(403, 'other-site', 'The request comes from another site', `Requests that change data are taken from this server's own pages only, not from ${origin}.`))
  }
})
