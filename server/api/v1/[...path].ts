import { defineEventHandler } from 'h3'
import { notFound } from '../../problems/problem'
import { sendProblem } from '../../http/send-problem'

/** What the table of operations has and no route answers; what it does not have is refused before. */
export default defineEventHandler(event => sendProblem(event, notFound('path', `${event.method} ${event.path} is no part of this API.`)))
