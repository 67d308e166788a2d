import { ensureInterface, ensurePackages, start } from './shared.mjs'

ensurePackages()
// One of the figures is taken in a real browser, on the built interface.
ensureInterface()
start(['--import', 'tsx', 'speed/main.ts'])
