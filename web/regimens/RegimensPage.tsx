import { Link } from 'react-router'
import type { RegimenSummary, RegimensView, TreatedWaterView } from '../../core/regimens/regimenView'
import { shownDay } from '../../core/time/shownDay'
import { plural } from '../../core/words/plural'
import { ButtonLink } from '../ui/Button'
import { InUnits } from '../ui/InUnits'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { Row, RowSection } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'
import { useRegimens } from './useRegimens'
import './regimens.css'

/** What is put into waters and done to them over days: what now first. */
export function RegimensPage() {
  const { regimens, problem } = useRegimens()
  if (!regimens) return problem ? <Trouble problem={problem} back={{ to: '/holds', label: 'Holds' }} /> : <Waiting what="the regimens" />
  return <Regimens regimens={regimens} />
}

function Regimens({ regimens: { running, ended, waters, products, lately } }: { regimens: RegimensView }) {
  const format = useFormat()
  const amiss = running.filter(({ isAmiss }) => isAmiss).length
  return (
    <>
      <Lead title="Regimens" aside={<Link to="/holds">Holds</Link>}>
        {running.length === 0 ? 'Nothing is under way.' : amiss > 0 ? `${plural(amiss, 'regimen waits', 'regimens wait')} for something now.` : `${plural(running.length, 'regimen runs', 'regimens run')}; nothing is late.`}
      </Lead>
      <RowSection title="Under way" count={running.length} nothing="A ladder, a course, a transfer or low salinity is begun below.">
        {running.map((each) => (
          <RegimenRow key={each.id} regimen={each} />
        ))}
      </RowSection>
      <div className="entry-buttons regimens-begin">
        <ButtonLink size="hand" to="/regimens/new">
          begin a regimen …
        </ButtonLink>
        <ButtonLink size="hand" to="/regimens/dose">
          dose a water once …
        </ButtonLink>
      </div>
      <RowSection title="In the water" count={waters.length} nothing="As far as is written down there is nothing in any water.">
        {waters.map((water) => (
          <WaterRow key={water.waterId} water={water} />
        ))}
      </RowSection>
      {products.length === 0 && (
        <p className="aside-word">
          No agent is entered with what its label says. <Link to="/setup/agents">Setup, Agents</Link>
        </p>
      )}
      <RowSection title="Dosed and bathed lately" count={lately.length} nothing="Nothing in the last two weeks.">
        {lately.map(({ id, words, to, by, atMs }) => (
          <Row key={id} to={to} aside={`${format.moment(atMs)}, ${by}`}>
            {words}
          </Row>
        ))}
      </RowSection>
      <RowSection title="Ended lately">
        {ended.map(({ id, title, waterName, ended: end }) => (
          <Row key={id} to={`/regimens/${id}`} aside={end && format.moment(end.atMs)}>
            {title}, {waterName} <small>{end?.reason}</small>
          </Row>
        ))}
      </RowSection>
      <p className="aside-word">Nothing here is a prescription. Doses are those of your product’s label; a veterinarian and local law decide.</p>
    </>
  )
}

function RegimenRow({ regimen: { id, title, tankCode, waterName, now, why, isAmiss, due } }: { regimen: RegimenSummary }) {
  const format = useFormat()
  const next = due.filter(({ byMs }) => byMs !== null).sort((a, b) => Number(a.byMs) - Number(b.byMs))[0]
  return (
    <Row to={`/regimens/${id}`} mark={isAmiss ? 'act' : 'plan'} aside={next?.byMs ? `${next.what}, ${format.moment(next.byMs)}` : null}>
      <strong>
        {title}, {waterName === `water of ${tankCode}` ? tankCode : waterName}
      </strong>{' '}
      <InUnits>{now}</InUnits>
      {why && (
        <small>
          <InUnits>{why}</InUnits>
        </small>
      )}
    </Row>
  )
}

function WaterRow({ water: { waterName, tankCodes, fish, agents, binderUntilMs } }: { water: TreatedWaterView }) {
  const format = useFormat()
  const where = waterName.startsWith('water of ') ? (tankCodes[0] ?? '') : waterName
  const words = [...agents.map(({ name, goneOn }) => `${name}${goneOn === null ? ', until it is cleared' : `, until ${shownDay(goneOn)}`}`), ...(binderUntilMs === null ? [] : [`a binder, until ${format.moment(binderUntilMs)}`])]
  return (
    <Row to={`/room/${tankCodes[0] ?? ''}`} aside={fish === 0 ? 'no fish' : `${fish} fish`}>
      <strong>{where}</strong> {words.join('; ')}
      {tankCodes.length > 1 && <small>{tankCodes.join(', ')}</small>}
    </Row>
  )
}
