import type { LetGo as Gone } from '../../core/holds/holdsView'
import { ButtonLink } from '../ui/Button'
import { RowSection } from '../ui/Rows'
import { moveOf } from './moveOf'

/** Fish whose hold is over, and what is done with them next: to a tank for sale or display, its label, the card they are given along. */
export const LetGo = ({ groups }: { groups: readonly Gone[] }) => (
  <RowSection title="Let go, to be moved" count={groups.length}>
    {groups.map((group) => (
      <li key={`${group.lotId} ${group.placeId}`} className="record hold-entry">
        <span>
          <strong>{group.placeName}</strong> {group.fish} {group.species}
          <small>lot {group.lotCode}</small>
        </span>
        <span className="entry-buttons">
          <ButtonLink size="hand" to={moveOf(group)}>
            move them …
          </ButtonLink>
          <ButtonLink size="hand" to={`/room/${group.placeName}/card`}>
            take-along card
          </ButtonLink>
          <ButtonLink size="hand" to={`/labels?tank=${group.placeName}`}>
            labels
          </ButtonLink>
        </span>
      </li>
    ))}
  </RowSection>
)
