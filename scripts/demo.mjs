import { built, ensureInterface, ensurePackages, ensureServer, start } from './shared.mjs'

ensurePackages()
ensureInterface()
await ensureServer()
start(built('demo'))
