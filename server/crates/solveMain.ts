import type { ChoiceInput } from '../../core/tankChoice/tankChoice'
import { solveChoice } from './solveChoice'

// A process of its own, because the solver blocks whatever thread it runs on; ending it is how a search is cancelled.
process.once('message', (asked: { input: ChoiceInput; seconds: number }) => {
  void solveChoice(asked.input, asked.seconds, (progress) => process.send?.(progress)).then(() => process.disconnect())
})
