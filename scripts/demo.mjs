import { ensureInterface, ensurePackages, start } from './shared.mjs'

ensurePackages()
ensureInterface()
start('demo/main.ts')
