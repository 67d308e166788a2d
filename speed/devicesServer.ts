import type { AddressInfo } from 'node:net'
import { monitorEventLoopDelay } from 'node:perf_hooks'
import { createApp } from '../server/app'
import { openDatabase } from '../server/db/open'

// The process under test: a room in a file, and how its event loop fares while devices ask.
const db = openDatabase(process.argv[2] ?? '')
const server = createApp({ db, now: Date.now }).listen(0, '127.0.0.1', () => process.send?.({ port: (server.address() as AddressInfo).port }))

const resolutionMs = 10
const delay = monitorEventLoopDelay({ resolution: resolutionMs })
/** What a look at the clock took longer than it should have. */
const lateMs = (nanoseconds: number): number => Math.max(0, nanoseconds / 1e6 - resolutionMs)
delay.enable()
/** Told what to do: to begin anew, or to say how it was. */
process.on('message', (word) => {
  if (word === 'begin') delay.reset()
  else process.send?.({ delayMs: { median: lateMs(delay.percentile(50)), p99: lateMs(delay.percentile(99)), most: lateMs(delay.max) }, memoryMb: process.memoryUsage().rss / 2 ** 20 })
})
