import { ensurePackages, start } from './shared.mjs'

ensurePackages()
start('bench/main.ts')
