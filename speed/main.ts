import { cpus, totalmem } from 'node:os'
import { benchAcclimation } from './acclimation'
import { benchDevices } from './devices'
import { benchFalseActs } from './falseActs'
import { benchFirstLoad } from './firstLoad'
import { benchHistory } from './history'
import { benchHolds } from './holds'
import { benchKeeping } from './keeping'
import { benchMoves } from './moves'
import { benchOutcomes } from './outcomes'
import { benchRounds } from './rounds'
import { benchResponsive } from './responsive'
import { benchRoom } from './room'
import { benchTankChoice } from './tankChoice'
import { benchWrites } from './writes'

// `npm run bench`: every figure is a ratio to a floor measured in the same run, because machines differ.
console.log(`Node ${process.version}, ${cpus().length} cores, ${Math.round(totalmem() / 2 ** 30)} GiB`)
await benchWrites()
await benchDevices()
await benchRoom()
await benchHistory()
await benchKeeping()
benchAcclimation()
await benchMoves()
await benchRounds()
await benchHolds()
await benchOutcomes()
await benchFalseActs()
await benchFirstLoad()
await benchResponsive()
await benchTankChoice()
