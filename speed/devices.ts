import { fork } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { dueApi } from '../core/due/due.api'
import { roomApi } from '../core/room/room.api'
import { todayApi } from '../core/today/today.api'
import type { ReadOf } from '../core/commands/declare'
import { demoPeople } from '../demo/demoBook'
import { makeDemo } from '../demo/makeDemo'
import { openDatabase } from '../server/db/open'
import { openDevice, type Count } from './device'
import { quantile } from './figures'

/** Screens that stand open beside the round, and the clock strip on each of them. */
const screens: ReadOf[][] = [[dueApi.readDue as ReadOf, roomApi.readRoom as ReadOf], [dueApi.readDue as ReadOf, todayApi.readToday as ReadOf], [dueApi.readDue as ReadOf]]
const [many, everyMs, forMs] = [50, 10_000, 120_000]
/** One device alone records quicker, so that there is enough to measure. */
const [aloneEveryMs, aloneForMs] = [500, 60_000]
/** At most so many times the median of one device: the median of many, and their 99th percentile. */
const [medianAim, p99Aim] = [3, 10]

interface Said {
  delayMs: { median: number; p99: number; most: number }
  memoryMb: number
}

/** Fifty devices as browsers read: a check each every ten seconds, their streams open, for two minutes; beside one device alone. */
export async function benchDevices(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'daily-crate-bench-'))
  const file = join(folder, 'room.sqlite')
  const db = openDatabase(file)
  db.raw.exec('PRAGMA synchronous=OFF')
  await makeDemo(db, Date.now(), 'UTC')
  db.close()
  const server = fork(join(import.meta.dirname, 'devicesServer.ts'), [file], { execArgv: ['--import', 'tsx'] })
  const heard = <T>(): Promise<T> => new Promise((resolve) => server.once('message', (message) => resolve(message as T)))
  const { port } = await heard<{ port: number }>()

  async function live(devices: number, betweenMs: number, lastsMs: number): Promise<Count & Said> {
    const count: Count = { checksMs: [], readsMs: [], unchanged: 0, failed: [] }
    const open = []
    for (let nth = 0; nth < devices; nth += 1) open.push(await openDevice(`http://127.0.0.1:${port}`, demoPeople.lead, screens[nth % screens.length] ?? [], count))
    await pause(3000)
    Object.assign(count, { checksMs: [], readsMs: [], unchanged: 0 })
    server.send('begin')
    const untilMs = Date.now() + lastsMs
    await Promise.all(open.map(async (device) => {
      await pause(Math.random() * betweenMs)
      for (; Date.now() < untilMs; await pause(betweenMs * (0.8 + 0.4 * Math.random()))) await device.check().catch((error: unknown) => void count.failed.push(String(error)))
    }))
    server.send('say')
    const said = await heard<Said>()
    open.forEach((device) => device.close())
    await pause(1000)
    return { ...count, ...said }
  }

  const alone = await live(1, aloneEveryMs, aloneForMs)
  const crowd = await live(many, everyMs, forMs)
  server.kill()
  rmSync(folder, { recursive: true, force: true })
  print(alone, crowd)
}

function print(alone: Count & Said, crowd: Count & Said): void {
  const cells = (...values: (number | string)[]): string => values.map((value) => String(typeof value === 'number' ? value.toFixed(2) : value).padStart(10)).join('')
  const row = (what: string, { checksMs, readsMs, unchanged, failed, delayMs, memoryMb }: Count & Said): void => {
    console.log(`  ${what.padEnd(14)}${cells(quantile(checksMs, 0.5), quantile(checksMs, 0.99), quantile(readsMs, 0.5), quantile(readsMs, 0.99), String(checksMs.length), String(readsMs.length), String(unchanged), String(failed.length))}`)
    console.log(`  ${''.padEnd(14)}event loop delayed by ${delayMs.median.toFixed(1)} ms in the median, ${delayMs.p99.toFixed(1)} ms in the 99th percentile, ${delayMs.most.toFixed(0)} ms at most; ${memoryMb.toFixed(0)} MB`)
  }
  console.log(`\nRecord a check while ${many} devices listen and read, a check each every ${everyMs / 1000} s, ${forMs / 1000} s`)
  console.log(`  ${'ms'.padEnd(14)}${cells('check', 'p99', 'read', 'p99', 'checks', 'reads', 'unchanged', 'failed')}`)
  row('one device', alone)
  row(`${many} devices`, crowd)
  const base = quantile(alone.checksMs, 0.5)
  const [median, p99] = [quantile(crowd.checksMs, 0.5) / base, quantile(crowd.checksMs, 0.99) / base]
  console.log(`  median ${median.toFixed(2)} times that of one device, aim ${medianAim}, ${median <= medianAim ? 'met' : 'NOT met'}; 99th percentile ${p99.toFixed(2)} times, aim ${p99Aim}, ${p99 <= p99Aim ? 'met' : 'NOT met'}; failed ${crowd.failed.length}, aim 0, ${crowd.failed.length === 0 ? 'met' : `NOT met: ${crowd.failed[0]}`}`)
}
