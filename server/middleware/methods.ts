import { defineEventHandler, setResponseHeader } from 'h3'
import { allOperations } from '../operations'
import { notFound, Problem } from '../problems/problem'
import { sendProblem } from '../http/send-problem'

const API = '/api/v1'

/** The methods of each path of the API, as a pattern of its segments. */
const known = [...new Set(allOperations.map(({ path }) => path))].map(path => ({
  matches: new RegExp(`^${path.replace(/[.*+?^$()|[\]\\]/g, '\\$&').replace(/\{[^}]+\}/g, '[^/]+')}/?$`),
  literal: !path.includes('{'),
  methods: allOperations.filter(operation => operation.path === path).map(({ method }) => method.toUpperCase()),
}))

/** A path of the API that there is not is said to be none, and a method that a path does not take is said to be wrong. */
export default defineEventHandler(event => {
  const [path] = event.path.split('?') as [string]
  if (!path.startsWith(`${API}/`)) return
  const own = path.slice(API.length)
  const found = known.filter(({ matches }) => matches.test(own))
  const { method } = event
  if (!found.length) return sendProblem(event, notFound('path', `${path} is no path of this API. ${API}/openapi.json lists all.`))
  if (found.some(({ methods }) => methods.includes(method) || (method === 'HEAD' && methods.includes('GET')))) return
  const allowed = [...new Set((found.find(({ literal }) => literal) ?? found[0]!).methods)]
  setResponseHeader(event, 'allow', allowed.join(', '))
  return sendProblem(
    event,
    new Problem(
      'wrong method',
      'wrong-method',
      'This path does not take that method',
      `${path} takes ${allowed.join(' or ')}, not ${method}.`,
    ),
  )
})
