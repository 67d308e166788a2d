import { Background, Controls, Handle, MarkerType, Position, ReactFlow, type Edge, type Node, type NodeProps } from '@xyflow/react'
import '@xyflow/react/dist/base.css'
import { useMemo } from 'react'
import type { TraceView } from '../../core/contacts/contactView'
import { useFormat } from '../ui/useFormat'
import { layoutTrace, type DrawnNode } from './layoutTrace'

type WaterNode = Node<{ drawn: DrawnNode; moment: string; isChosen: boolean }, 'water'>

/** A water has round corners like all that holds water; a tool set is a record. */
function WaterBox({ data: { drawn, moment, isChosen } }: NodeProps<WaterNode>) {
  const isTool = drawn.node.startsWith('tools:')
  return (
    <div className={`trace-node${isTool ? ' is-tool' : ''}${drawn.isStart ? ' is-start' : ''}${isChosen ? ' is-chosen' : ''}`}>
      <Handle type="target" position={Position.Left} isConnectable={false} />
      <strong>{drawn.name}</strong>
      <small>{drawn.isStart ? 'asked for' : moment}</small>
      <Handle type="source" position={Position.Right} isConnectable={false} />
    </div>
  )
}
const nodeTypes = { water: WaterBox }

/** A trace as a drawing: waters and tool sets, from left to right as time went. The one that is touched is told of below. */
export default function TraceDrawing({ trace, chosen, onChoose }: { trace: TraceView; chosen: string | null; onChoose: (node: string) => void }) {
  const format = useFormat()
  const drawn = useMemo(() => layoutTrace(trace), [trace])
  const nodes = drawn.nodes.map((each): WaterNode => ({ id: each.node, type: 'water', position: { x: each.x, y: each.y }, width: each.width, height: each.height, data: { drawn: each, moment: each.atMs === null ? '' : format.moment(each.atMs), isChosen: each.node === chosen }, ariaLabel: each.name, draggable: false }))
  const edges = drawn.edges.map(({ id, from, to, kind, isPlanned }): Edge => {
    const stroke = isPlanned ? 'var(--soft)' : 'var(--harm)'
    // The library's own styles stand above ours: what a line looks like is said on the line.
    return { id, source: from, target: to, label: isPlanned ? kind : `${kind}, breach`, style: { stroke, strokeWidth: isPlanned ? 1.5 : 2.5, ...(isPlanned ? {} : { strokeDasharray: '6 3' }) }, labelStyle: { fill: 'var(--ink)', fontSize: 11 }, labelBgStyle: { fill: 'var(--ground)' }, markerEnd: { type: MarkerType.ArrowClosed, color: stroke }, focusable: false }
  })
  return (
    <div className="trace-drawing" role="group" aria-label="Drawing of what met">
      <ReactFlow<WaterNode> nodes={nodes} edges={edges} nodeTypes={nodeTypes} onNodeClick={(_, { id }) => onChoose(id)} onSelectionChange={({ nodes: [first] }) => first && onChoose(first.id)} nodesConnectable={false} fitView fitViewOptions={{ minZoom: 0.6, maxZoom: 1, padding: 0.08 }} minZoom={0.2} maxZoom={2} preventScrolling={false} proOptions={{ hideAttribution: true }}>
        <Background />
        <Controls showInteractive={false} />
      </ReactFlow>
    </div>
  )
}
