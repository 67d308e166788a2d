import { outcomesApi } from '../../core/outcomes/outcomes.api'
import { serve, type Endpoint } from '../http/endpoint'
import { programAtMost } from '../program'
import type { AlarmsService } from './alarms.service'
import type { HintsService } from './hints.service'
import type { LossBooksService } from './lossBooks'
import type { ReviewService } from './review.service'
import type { TrialsService } from './trials.service'

const writeReview = programAtMost('outcomes/reviewMain', 1, 'A sheet is being written already; wait a few seconds')

interface Collaborators {
  books: LossBooksService
  alarms: AlarmsService
  hints: HintsService
  trials: TrialsService
  review: ReviewService
  roomName: () => string
  now: () => number
}

/** Answers of Outcomes. */
export function outcomesEndpoints({ books, alarms, hints, trials, review, roomName, now }: Collaborators): Endpoint[] {
  return serve(outcomesApi, {
    readOutcomeLots({ nowMs }) {
      const { today, rules, lots, notFollowed } = books.at(nowMs)
      return { today, rules, lots: lots(), notFollowed }
    },
    readAlarms: ({ nowMs }) => alarms.view(nowMs),
    answerAlarm: alarms.answer,
    undoOutbreak: alarms.undoOutbreak,
    readHints: ({ params, nowMs }) => hints.ofTank(params.code, nowMs),
    readTrials: ({ nowMs }) => trials.list(nowMs),
    readTrialOfCrate: ({ params, nowMs }) => trials.ofCrate(params.crateId, nowMs),
    startTrial: trials.start,
    takePart: trials.takePart,
    takeTrialLook: trials.takeLook,
    answerTrialPause: trials.answerPause,
    endTrial: trials.end,
    readLossMoney: ({ nowMs }) => review.money(nowMs),
    readReview: ({ query, nowMs }) => review.view(query.month ?? null, nowMs),
    async readReviewPdf(request, response) {
      const sheet = review.view(String(request.params.month), now())
      response.attachment(`losses-${sheet.month}.pdf`).type('application/pdf').send(await writeReview({ room: roomName(), review: sheet } as never))
    },
    keepSheet: review.keep,
  })
}
