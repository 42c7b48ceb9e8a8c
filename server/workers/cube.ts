// The thread that holds all charges in memory and answers questions about them.
import { parentPort } from 'node:worker_threads'
import { calls } from '../charges/cube/cube-calls'
import type { CubeReply, CubeRequest } from '../charges/cube/cube-messages'
import { replies } from '../charges/cube/cube-replies'
import { sliced } from '../charges/cube/cube-slices'
import { CubeState, type Known } from '../charges/cube/cube-state'
import { GivenUp, inSlices } from '../charges/cube/in-slices'

const state = new CubeState()
const utf8 = new TextEncoder()
/** What is answered in slices and is not wanted any more. */
const givenUp = new Set<number>()

function send(reply: CubeReply, bytes?: Uint8Array): void {
  parentPort!.postMessage(reply, bytes ? [bytes.buffer as ArrayBuffer] : [])
}
function sendWritten(id: number, made: object): void {
  const result = utf8.encode(JSON.stringify({ ...made, revision: state.revision }))
  send({ id, revision: state.revision, result }, result)
}
function sendFailed(id: number, error: unknown): void {
  send(error instanceof GivenUp ? { id, givenUp: true } : { id, error: (error as Error).stack ?? (error as Error).message })
}

function answer(request: Exclude<CubeRequest, { giveUp: number }>): void {
  const { id } = request
  if ('change' in request) {
    state[request.change](request.argument as never)
    return send({ id, revision: state.revision, result: null })
  }
  const { within, argument } = request
  if ('slices' in request) {
    const make = sliced[request.slices] as (known: Known, argument: unknown) => Generator<void, object>
    inSlices(
      () => make(state.known(within), argument),
      () => state.changes,
      () => givenUp.has(id),
    )
      .then(made => sendWritten(id, made))
      .catch((error: unknown) => sendFailed(id, error))
      .finally(() => givenUp.delete(id))
  } else if ('reply' in request) {
    const reply = replies[request.reply] as (known: Known, argument: unknown) => object
    sendWritten(id, reply(state.known(within), argument))
  } else {
    const call = calls[request.call] as (known: Known, argument: unknown) => unknown
    send({ id, revision: state.revision, result: call(state.known(within), argument) })
  }
}

parentPort!.on('message', (request: CubeRequest) => {
  if ('giveUp' in request) {
    givenUp.add(request.giveUp)
    return
  }
  try {
    answer(request)
  } catch (error) {
    sendFailed(request.id, error)
  }
})
