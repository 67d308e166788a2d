import './theme/layers.css'
import '@fontsource-variable/atkinson-hyperlegible-next/index.css'
import './theme/bootstrap.scss'
import './theme/tokens.css'
import './theme/base.css'
import './theme/print.css'
import './ui/ui.css'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { App } from './App'
import { keepPresses } from './ui/keepPresses'

const root = document.getElementById('root')
if (!root) throw new Error('index.html has no #root')
keepPresses(document)
createRoot(root).render(
  <StrictMode>
    <App />
  </StrictMode>,
)
