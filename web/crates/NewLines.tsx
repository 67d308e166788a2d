import type { ToldOfLine } from '../../core/crates/told.schema'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { bringIntoView } from '../ui/ListProblem'
import { Table } from '../ui/Table'
import { TankOptions } from '../ui/TankOptions'
import { readDraft, type LineDraft } from './lineDraft'
import { LineFields } from './LineFields'
import { useTankChoices } from './useCrates'

/** A line that is not in the books yet. */
export interface NewLine {
  id: number
  draft: LineDraft
  isNewSpecies: boolean
  /** Species that this name may have been meant for: one that is spelt nearly so, or several that go by it. */
  couldBe: string[]
  isOpen: boolean
  /** What the sender did with them; left out where they say nothing. */
  told?: ToldOfLine | null
}

interface Props {
  lines: NewLine[]
  showsErrors: boolean
  onChange: (lines: NewLine[]) => void
}

/** The lines of a new crate: a tank for each at a glance, all fields of one when it is opened. */
export function NewLines({ lines, showsErrors, onChange }: Props) {
  if (lines.length === 0) return null
  const replace = (next: NewLine): void => onChange(lines.map((line) => (line.id === next.id ? next : line)))
  return (
    <Table responsive className="new-lines" ref={bringIntoView}>
      <thead>
        <tr>
          <th scope="col">species</th>
          <th scope="col" className="number">fish</th>
          <th scope="col" className="number">bags</th>
          <th scope="col">tank</th>
          <th scope="col">
            <span className="visually-hidden">change</span>
          </th>
        </tr>
      </thead>
      {lines.map((line) => (
        <LineRows key={line.id} line={line} showsErrors={showsErrors} onChange={replace} onRemove={() => onChange(lines.filter((each) => each.id !== line.id))} />
      ))}
    </Table>
  )
}

function LineRows({ line, showsErrors, onChange, onRemove }: { line: NewLine; showsErrors: boolean; onChange: (line: NewLine) => void; onRemove: () => void }) {
  const { draft } = line
  const tanks = useTankChoices()
  const read = readDraft(draft)
  const edit = (next: LineDraft): void => onChange({ ...line, draft: next, ...(next.species === draft.species ? {} : { isNewSpecies: false, couldBe: [] }) })
  return (
    <tbody>
      <tr>
        <td>
          {draft.species || 'a new line'} <NameHint line={line} onTake={(species) => onChange({ ...line, draft: { ...draft, species }, isNewSpecies: false, couldBe: [] })} />
          <small className="line-details">{[draft.strain, draft.origin, draft.promisedTo && `promised to ${draft.promisedTo}`].filter(Boolean).join(', ')}</small>
        </td>
        <td className="number">{read.ok ? read.line.count : draft.count}</td>
        <td className="number">{draft.bags}</td>
        <td>
          <ChoiceField label={`tank for ${draft.species}`} isLabelHidden value={draft.tankId} onChange={(tankId) => edit({ ...draft, tankId })}>
            <option value="">choose later</option>
            <TankOptions tanks={tanks} />
          </ChoiceField>
        </td>
        <td>
          <Button look="quiet" aria-expanded={line.isOpen} onClick={() => onChange({ ...line, isOpen: !line.isOpen })}>
            {line.isOpen ? 'close' : 'more'}
          </Button>
        </td>
      </tr>
      {line.isOpen && (
        <tr>
          <td colSpan={5}>
            <LineFields draft={draft} errors={showsErrors && !read.ok ? read.errors : {}} onChange={edit} hasTank={false} />
            <Button look="quiet" onClick={onRemove}>
              take this line off
            </Button>
          </td>
        </tr>
      )}
    </tbody>
  )
}

/** A name that the book does not know, and the one that was perhaps meant. */
function NameHint({ line, onTake }: { line: NewLine; onTake: (species: string) => void }) {
  const { isNewSpecies, couldBe = [] } = line
  if (!isNewSpecies) return null
  return (
    <>
      <small className="aside-word">{couldBe.length > 1 ? 'several kinds are called so' : 'new to the book'}</small>
      {couldBe.map((species) => (
        <Button key={species} look="quiet" className="did-you-mean" onClick={() => onTake(species)}>
          is it {species}?
        </Button>
      ))}
    </>
  )
}
