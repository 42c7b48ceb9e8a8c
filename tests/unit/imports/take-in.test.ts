import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable, Writable } from 'node:stream'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'

const disk = vi.hoisted(() => ({ isFull: false }))
vi.mock('node:fs', async original => {
  const fs = await original<typeof import('node:fs')>()
  const full = () => {
    const error = Object.assign(new Error('ENOSPC: no space left on device, write'), { code: 'ENOSPC' })
    return new Writable({ write: (_chunk, _encoding, done) => done(error) })
  }
  return { ...fs, createWriteStream: (path: string) => (disk.isFull ? full() : fs.createWriteStream(path)) }
})

// another file of this process may have read it before, with the real disk
vi.resetModules()
const { takeIn, TooLong } = await import('../../../server/imports/take-in')

let folder: string
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'rain-barrel-take-in-'))
})
afterEach(() => {
  disk.isFull = false
  rmSync(folder, { recursive: true })
})
const take = (text: string, most?: number) => takeIn(Readable.from([Buffer.from(text)]), 'bill.csv', join(folder, '0'), most)

it('puts a file in its place only when it is told to, with its length and hash', async () => {
  const { file, keep } = await take('abc')
  expect(readdirSync(folder)).toHaveLength(1)
  expect(readdirSync(folder)).not.toContain('0')
  await keep()
  expect(readdirSync(folder)).toEqual(['0'])
  expect(readFileSync(join(folder, '0'), 'utf8')).toBe('abc')
  // the example of FIPS 180-2, appendix B.1
  expect(file).toEqual({ name: 'bill.csv', bytes: 3, sha256: 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad' })
})

it('leaves nothing of what is too long, dropped, or has no room, and says that the disk is full', async () => {
  await expect(take('abcd', 3)).rejects.toBeInstanceOf(TooLong)
  await (await take('abc', 3)).drop()
  disk.isFull = true
  await expect(take('abc')).rejects.toMatchObject({ kind: 'no room', code: 'disk-full', title: 'The disk is full' })
  expect(readdirSync(folder)).toEqual([])
})
