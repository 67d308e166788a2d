import { benchOutcomes } from './outcomes'
await benchOutcomes()
