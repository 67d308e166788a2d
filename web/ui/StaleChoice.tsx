import { Button } from './Button'
import { Table } from './Table'

interface Props {
  /** What was changed, e.g. `supplier`. */
  one: string
  fields: readonly { label: string; mine: string; theirs: string }[]
  onMine: () => void
  onTheirs: () => void
}

/** Two people changed the same thing: both versions side by side, and a choice. Nothing was overwritten. */
export function StaleChoice({ one, fields, onMine, onTheirs }: Props) {
  const differing = fields.filter(({ mine, theirs }) => mine !== theirs)
  return (
    <section className="stale" role="alert">
      <p>
        <strong>Somebody else changed this {one} meanwhile.</strong> Nothing was overwritten. {differing.length > 0 ? 'Which is right?' : 'Both say the same.'}
      </p>
      {differing.length > 0 && (
        <Table>
          <thead>
            <tr>
              <th scope="col">field</th>
              <th scope="col">yours</th>
              <th scope="col">theirs, saved</th>
            </tr>
          </thead>
          <tbody>
            {differing.map(({ label, mine, theirs }) => (
              <tr key={label}>
                <th scope="row">{label}</th>
                <td>{mine || '–'}</td>
                <td>{theirs || '–'}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      <div className="entry-buttons">
        <Button onClick={onMine}>
          Save mine over it
        </Button>
        <Button onClick={onTheirs}>
          Take theirs
        </Button>
      </div>
    </section>
  )
}
