import { mkdtempSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import express, { type Express } from 'express'
import { createApp } from '../server/app'
import { openDatabase } from '../server/db/open'

// The process under test: our app, and beside it the floor, a bare route with one insert through the same driver,
// same journal, same care for the disk.
const folder = mkdtempSync(join(tmpdir(), 'daily-crate-bench-'))

function createFloor(): Express {
  const db = openDatabase(join(folder, 'floor.sqlite'))
  db.raw.exec('CREATE TABLE floor (id INTEGER PRIMARY KEY, body TEXT NOT NULL, at_ms INTEGER NOT NULL)')
  const insert = db.raw.prepare('INSERT INTO floor (body, at_ms) VALUES (?, ?)')
  const app = express()
  app.use(express.json())
  app.post('/', (request, response) => {
    insert.run(JSON.stringify(request.body), Date.now())
    response.status(201).json({})
  })
  return app
}

const serve = (app: Express): Promise<number> => new Promise((resolve) => { const server = app.listen(0, '127.0.0.1', () => resolve((server.address() as AddressInfo).port)) })
const ours = await serve(createApp({ db: openDatabase(join(folder, 'ours.sqlite')), now: Date.now }))
const floor = await serve(createFloor())
process.send?.({ ours, floor })
