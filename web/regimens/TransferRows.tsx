import { useState } from 'react'
import type { TransferView } from '../../core/regimens/regimenView'
import { sentenceOf } from '../api/ApiProblem'
import { Button, ButtonLink } from '../ui/Button'
import { Notice, Problem } from '../ui/Notice'
import { Table } from '../ui/Table'
import { useFormat } from '../ui/useFormat'

interface Props {
  transfer: TransferView
  isOpen: boolean
  clean: (tankId: string) => Promise<unknown>
  nowMs: number
}

/** Transfers to come, with the tanks that are to be clean and dry by then. */
export function TransferRows({ transfer: { served, of, atCode, nextCode, nextTankId, rows, problems, toClean, fish, status }, isOpen, clean, nowMs }: Props) {
  const format = useFormat()
  const [problem, setProblem] = useState<string | null>(null)
  const moved = encodeURIComponent(JSON.stringify(fish.map(({ speciesId, strain, quantity }) => ({ speciesId, strain, quantity }))))
  return (
    <section className="transfer" aria-label="Transfers">
      <ol className="transfer-marks" aria-label={`${served} of ${of} transfers count`}>
        {Array.from({ length: of }, (_, index) => (
          <li key={index} className={index < served ? 'is-made' : ''}>
            {index + 1}
          </li>
        ))}
      </ol>
      {problems.map((each) => (
        <Notice key={each} level="watch">
          {problemWords[each] ?? each}
        </Notice>
      ))}
      {isOpen && fish.length > 0 && (
        <p>
          {fish.map(({ species, quantity }) => `${quantity} ${species}`).join(', ')} in {atCode}.
        </p>
      )}
      {isOpen && nextCode && fish.length > 0 && (
        <ButtonLink size="hand" look={status === 'on time' ? 'plain' : 'act'} to={`/room/${atCode}/move?to=tank:${nextTankId ?? ''}&fish=${moved}`}>
          move them to {nextCode} …
        </ButtonLink>
      )}
      {rows.length > 0 && (
        <Table responsive>
          <thead>
            <tr>
              <th scope="col">transfer</th>
              <th scope="col">due</th>
              <th scope="col">move</th>
              <th scope="col">clean and dry</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ k, dueAtMs, fromCode, toCode, readyFromMs, isDry }) => (
              <tr key={k} className={dueAtMs < nowMs ? 'is-late' : ''}>
                <th scope="row">{k}</th>
                <td>{format.moment(dueAtMs)}</td>
                <td>
                  <span className="whole">{fromCode}</span> to <span className="whole">{toCode}</span>
                </td>
                <td>{readyFromMs === null ? 'not used before' : isDry ? `from ${format.moment(readyFromMs)}` : `only from ${format.moment(readyFromMs)}: too late`}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {isOpen && toClean.length > 0 && (
        <div className="entry-buttons" role="group" aria-label="Clean and dry">
          {toClean.map(({ tankId, tankCode }) => (
            <Button key={tankId} size="hand" onClick={() => void clean(tankId).catch((error: unknown) => setProblem(sentenceOf(error)))}>
              {tankCode} is emptied, cleaned, drying
            </Button>
          ))}
        </div>
      )}
      <Problem>{problem}</Problem>
      <p className="aside-word">Against marine white spot only. Each tank is emptied, cleaned and dried, with a net of its own.</p>
    </section>
  )
}

const problemWords: Readonly<Record<string, string>> = {
  'one tank only': 'There is one tank only: it has no time to dry.',
  'longer than 72 h': 'More than 72 hours lie between: the young parasites may swim before the fish are moved.',
  temperature: 'The next tank is more than a degree warmer or colder than this one.',
  salinity: 'The next tank is more than 1 ppt fresher or saltier than this one.',
}
