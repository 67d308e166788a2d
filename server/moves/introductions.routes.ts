import { introductionsApi } from '../../core/moves/introductions.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { IntroductionsService } from './introductions.service'
import { readFish } from './moves.routes'

/** Answers for newcomers and the residents that defend their place. */
export const introductionsEndpoints = ({ plan, list, view, begin, record, undo, end }: IntroductionsService): Endpoint[] =>
  serve(introductionsApi, {
    readIntroductionPlan: ({ query: { from, to, fish, mirror, divider, dominants }, nowMs }) => plan({ fromTankId: from ?? '', tankId: to ?? '', fish: readFish(fish), hasMirror: mirror === '1', hasDivider: divider === '1', dominants: (dominants ?? '').split(',').filter(Boolean) }, nowMs),
    readIntroductions: ({ nowMs }) => list(nowMs),
    readIntroduction: ({ params, nowMs }) => view(params.introductionId, nowMs),
    ...{ beginIntroduction: begin, recordIntroduction: record, undoIntroduction: undo, endIntroduction: end },
  })
