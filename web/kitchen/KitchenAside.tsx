import { Link } from 'react-router'
import { groupBy } from '../../core/collections/groupBy'
import type { FedLot, KitchenView } from '../../core/kitchen/kitchenView'
import { InUnits } from '../ui/InUnits'
import { Notice } from '../ui/Notice'
import { Row, RowSection } from '../ui/Rows'
import { plural } from '../ui/format'
import { skippedWords } from './kitchenWords'

/** Who gets nothing and why, what a water does not bear, what runs out. */
export function KitchenAside({ kitchen }: { kitchen: KitchenView }) {
  const small = kitchen.racks.flatMap(({ tanks }) => tanks.filter(({ meals }) => meals > 0))
  const { skipped, leftOut, away, short, order, waters, filterUnsaid, volumeUnsaid, unreckoned, guessed, isCounted } = kitchen
  const dayPercent = kitchen.feeds.reduce((sum, feed) => sum + feed.dayPercent, 0)
  return (
    <>
      {dayPercent !== 100 && (
        <Notice level="watch">
          The feeds of the day come to {dayPercent} % of its food. <Link to="/setup/feeds">Feeds in Setup</Link>
        </Notice>
      )}
      <RowSection title="Left out: nothing suits them" count={leftOut.reduce((sum, { quantity }) => sum + quantity, 0)}>
        {leftOut.map((lot) => (
          <Row key={`${lot.tankId} ${lot.lotId}`} to={`/room/${lot.tankCode}`} mark="harm" aside={lot.medicated ? 'its food is out' : `${lot.mouth} mouths`}>
            <strong>{lot.tankCode}</strong> {lot.quantity} {lot.species}
            {lot.medicated && <small>{lot.medicated} is not replaced by food without the medicine</small>}
          </Row>
        ))}
      </RowSection>
      {skipped.map(({ why, lots }) => (
        <RowSection key={why} title={`Nothing today: ${skippedWords[why]}`} count={lots.length}>
          {byTank(lots).map(([tankCode, fish, until]) => (
            <Row key={tankCode} to={`/room/${tankCode}`} mark="watch" aside={until === null ? '' : `until ${until}`}>
              <strong>{tankCode}</strong> {fish}
            </Row>
          ))}
        </RowSection>
      ))}
      <RowSection title="In small meals" count={small.length}>
        {small.map(({ tankId, code, fish, meals }) => (
          <Row key={tankId} to={`/room/${code}`} mark="hold" aside={`${meals} small meals`}>
            <strong>{code}</strong> {fish}
          </Row>
        ))}
      </RowSection>
      <RowSection title="Not in this list" count={away.length}>
        {away.map(({ where, fish, why }) => (
          <li key={where} className="record">
            <strong>{where}</strong> {fish} <small>{why}</small>
          </li>
        ))}
      </RowSection>
      <RowSection title="Too little in the house" count={short.length}>
        {short.map(({ food, pieces }) => (
          <Row key={food} to="/kitchen/larder" mark="watch" aside={`${pieces} missing`}>
            <strong>{food}</strong>
            <small>everybody who eats it gets less</small>
          </Row>
        ))}
      </RowSection>
      <RowSection title="Waters that bear it badly" count={waters.length}>
        {waters.map(({ waterId, where, words, isHarm }) => (
          <Row key={waterId} to="/desk/change" mark={isHarm ? 'harm' : 'watch'}>
            <strong>{where}</strong> <InUnits>{words}</InUnits>
          </Row>
        ))}
      </RowSection>
      {filterUnsaid.length > 0 && (
        <Notice>
          Does a filter run? Without one their water does not bear this food: {filterUnsaid.join(', ')}. <Link to="/setup/systems">Say it in Setup</Link>
        </Notice>
      )}
      {volumeUnsaid.length > 0 && <Notice>How much water stands in {volumeUnsaid.join(', ')}? Until that is known nobody can say whether it bears this food.</Notice>}
      <RowSection title="To order" count={order.length}>
        {order.map(({ food, pieces, words }) => (
          <Row key={food} to="/kitchen/larder" mark="plan" aside={words}>
            <strong>{food}</strong> {pieces > 0 && `${pieces} left`}
          </Row>
        ))}
      </RowSection>
      {!isCounted && (
        <Notice>
          Nobody has counted the foods yet, so this list takes all of them as on hand. <Link to="/kitchen/larder">Count them</Link>
        </Notice>
      )}
      {guessed.length > 0 && <Notice>Nobody says what they weigh: {guessed.join(', ')}. Their food is reckoned by a guess; a length measured, or a weight in the species book, is better.</Notice>}
      {unreckoned.length > 0 && (
        <Notice>
          Not reckoned with: {unreckoned.join(', ')}. {plural(unreckoned.length, 'food')} of which nobody says what a piece weighs and whom it suits. <Link to="/setup/foods">Foods in Setup</Link>
        </Notice>
      )}
      <p className="aside-word">Grams are house guidance by weight, warmth and what was eaten last. Look at the fish: what is left is too much. What was thawed is not frozen again.</p>
    </>
  )
}

/** Fish by tank, once each, with until when. */
const byTank = (lots: readonly (FedLot & { until: string | null })[]): [code: string, fish: string, until: string | null][] =>
  [...groupBy(lots, ({ tankCode }) => tankCode)].map(([code, here]) => [code, [...groupBy(here, ({ species }) => species)].map(([species, same]) => `${same.reduce((sum, { quantity }) => sum + quantity, 0)} ${species}`).join(', '), here[0]?.until ?? null])
