import { ensureInterface, ensurePackages, start } from './shared.mjs'

ensurePackages()
ensureInterface()
start('server/main.ts')
