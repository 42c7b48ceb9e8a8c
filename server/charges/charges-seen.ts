import { JsonBytes } from '../json-bytes'
import type { CubeCalls } from './cube/cube-calls'
import type { CubeReplies } from './cube/cube-replies'
import type { CubeSlices } from './cube/cube-slices'

type MadeInSlices<K extends keyof CubeSlices> = ReturnType<CubeSlices[K]> extends Generator<void, infer Made> ? Made : never

/** What was found, and in which state of the charges. */
export type Seen<T> = { revision: number; result: T }

type Ask = <T>(request: object, unwanted?: AbortSignal) => Promise<Seen<T>>

/** The charges that someone may see: all questions about them go this way. Every reply says which data it saw. */
export class ChargesSeen {
  constructor(private readonly send: Ask) {}

  ask<K extends keyof CubeCalls>(call: K, argument: Parameters<CubeCalls[K]>[1]): Promise<Seen<ReturnType<CubeCalls[K]>>> {
    return this.send({ call, argument })
  }

  /** What a request is answered with, written in the thread that makes it. */
  async reply<K extends keyof CubeReplies>(
    reply: K,
    argument: Parameters<CubeReplies[K]>[1],
  ): Promise<JsonBytes<ReturnType<CubeReplies[K]> & { revision: number }>> {
    const { result } = await this.send<Uint8Array>({ reply, argument })
    return new JsonBytes(result)
  }

  /**
   * What takes long, made in slices between which others are answered. @param unwanted ends it when nobody wants it any more.
   * @throws GivenUp then.
   */
  async inSlices<K extends keyof CubeSlices>(
    slices: K,
    argument: Parameters<CubeSlices[K]>[1],
    unwanted?: AbortSignal,
  ): Promise<JsonBytes<MadeInSlices<K> & { revision: number }>> {
    const { result } = await this.send<Uint8Array>({ slices, argument }, unwanted)
    return new JsonBytes(result)
  }
}
