import type { Ref } from 'react'
import { Table as BootstrapTable, type TableProps } from 'react-bootstrap'

/** Records in columns; with `responsive` a wide one scrolls in a frame of its own. */
export const Table = ({ className, ...props }: TableProps & { ref?: Ref<HTMLTableElement> }) => <BootstrapTable {...props} className={['record-table', className].filter(Boolean).join(' ')} />
