import { useFormat } from '../ui/useFormat'
import { readLetter, useMailbox } from './useCrates'
import { Button } from '../ui/Button'

interface Props {
  onPick: (list: Blob, letterId: string) => void
  onProblem: (error: unknown) => void
}

/** Lists that suppliers sent, to be read with a touch. Nothing is there, nothing is shown. */
export function MailboxList({ onPick, onProblem }: Props) {
  const { letters, isSimulated } = useMailbox()
  const format = useFormat()
  if (letters.length === 0) return null
  return (
    <section className="mailbox" aria-label="Mailbox">
      <h3>or from the supplier mailbox{isSimulated && <small> (simulated: a folder beside the room’s data)</small>}</h3>
      <ul>
        {letters.map(({ id, name, atMs }) => (
          <li key={id}>
            <Button onClick={() => void readLetter(id).then((list) => onPick(list, id), onProblem)}>
              Read {name}
            </Button>{' '}
            <span className="aside-word">{format.moment(atMs)}</span>
          </li>
        ))}
      </ul>
    </section>
  )
}
