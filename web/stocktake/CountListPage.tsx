import { useState } from 'react'
import { useNavigate } from 'react-router'
import { Button, ButtonLink } from '../ui/Button'
import { FileField, TextField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { ListProblem, problemOf, type ListTrouble } from '../ui/ListProblem'
import { useStocktake, useStocktakeWrites } from './useStocktake'
import './stocktake.css'

/** Office programs write a list in one of two ways. */
async function textOf(file: Blob): Promise<string> {
  const bytes = await file.arrayBuffer()
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

/** What stands where as a list: it is read as counts, which are looked at before anything is booked. */
export function CountListPage() {
  const { stocktake } = useStocktake()
  const { begin, importCounts } = useStocktakeWrites('')
  const navigate = useNavigate()
  const [text, setText] = useState('')
  const [problem, setProblem] = useState<ListTrouble | null>(null)
  const take = async (csv: string): Promise<void> => {
    setProblem(null)
    try {
      const id = stocktake && !stocktake.booked ? stocktake.id : (await begin('opening')).id
      await importCounts(id, csv)
      await navigate('/stocktake/review')
    } catch (error) {
      setProblem(problemOf(error))
    }
  }
  return (
    <>
      <Lead title="A list of what stands where" aside={<ButtonLink to="/stocktake" look="quiet">to counting</ButtonLink>}>
        One row a tank and kind of fish. All of it is taken as counted, or none of it; the books stay as they are until you have looked at it.
      </Lead>
      <div className="list-input">
        <FileField label="File, CSV" accept=".csv,.txt,text/csv" onFile={(file) => file && void textOf(file).then(take)} />
        <TextField label="or pasted, the first row naming the columns" rows={6} spellCheck={false} placeholder={'tank,species,count,strain,source\nR1-01,Cherry barb,12,,Hollow Reed Hatchery'} value={text} onChange={setText} />
        <Button look="act" disabled={text.trim() === ''} onClick={() => void take(text)}>
          Read the list
        </Button>
        {problem && <ListProblem {...problem} />}
      </div>
    </>
  )
}
