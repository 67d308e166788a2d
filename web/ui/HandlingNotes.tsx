import { handlingNotes, type Handling } from '../../core/species/handling'

interface Props {
  /** Fish that are handled together; what several of them ask for is said once, with their names. */
  of: readonly { species: string; handling: Handling }[]
}

/** What to mind with fish in the hand: what hurts people first, with its first aid; then what hurts fish. */
export function HandlingNotes({ of }: Props) {
  const bySpecies = new Map(of.map(({ species, handling }) => [species, handling]))
  const asked = [...bySpecies].flatMap(([species, handling]) => handlingNotes(handling).map((note) => ({ species, note })))
  const notes = [...new Map(asked.map(({ note }) => [note.key, note])).values()].sort((a, b) => Number(b.isDanger) - Number(a.isDanger))
  if (notes.length === 0) return null
  const names = (key: string): string => (bySpecies.size < 2 ? '' : ` (${asked.filter(({ note }) => note.key === key).map(({ species }) => species).join(', ')})`)
  return (
    <ul className="handling-notes" aria-label="To mind with these fish">
      {notes.map(({ key, isDanger, title, what, firstAid }) => (
        <li key={key} className={isDanger ? 'is-danger' : undefined}>
          <strong>
            {title}
            {names(key)}.
          </strong>{' '}
          {what}
          {firstAid && <small>{firstAid}</small>}
        </li>
      ))}
    </ul>
  )
}
