import { alarmThreshold } from './outcomes/alarmThreshold'
import { causeHints } from './outcomes/causeHints'
import { certaintyWords } from './outcomes/certaintyWords'
import { clusterTest } from './outcomes/clusterTest'
import { compareGroups } from './outcomes/compareGroups'
import { designSchedule, schoolOfTheDay } from './outcomes/designSchedule'
import { expectedLosses } from './outcomes/expectedLosses'
import { falseDiscovery } from './outcomes/falseDiscovery'
import { kindsOfDeath } from './outcomes/kindsOfDeath'
import { likeness } from './outcomes/likeness'
import { lossAlarmState } from './outcomes/lossAlarmState'
import { lossPattern } from './outcomes/lossPattern'
import { moneyFigures } from './outcomes/moneyFigures'
import { monthlyFigures } from './outcomes/monthlyFigures'
import { riskSets } from './outcomes/riskSets'
import { shrinkRank } from './outcomes/shrinkRank'
import { survivalByCrate } from './outcomes/survivalByCrate'
import { samplesNeeded, trialLook } from './outcomes/trialLook'

/** Outcomes, under the names of the specification (outcomes). */
export const outcomeAcceptance = {
  ...{ riskSets, kmCluster: survivalByCrate, cumulativeIncidence: kindsOfDeath, compareGroups, clusterTest, falseDiscovery, certaintyWords },
  ...{ likeness, shrinkRank, expectedLosses, alarmThreshold, lossAlarmState, lossPattern, causeHints },
  ...{ designSchedule, schoolOfTheDay, samplesNeeded, trialLook, moneyFigures, monthlyFigures },
}
