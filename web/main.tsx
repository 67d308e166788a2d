import '@fontsource-variable/atkinson-hyperlegible-next/index.css'
import 'bootstrap/dist/css/bootstrap.min.css'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { App } from './App'
import './styles/tokens.css'
import './styles/base.css'
import './styles/frame.css'
import './styles/marks.css'
import './styles/hands.css'
import './styles/unpack.css'
import './styles/gate.css'
import './styles/round.css'
import './styles/records.css'
import './styles/crates.css'
import './styles/delivery.css'
import './styles/setup.css'
import './styles/species.css'
import './styles/today.css'
import './styles/desk.css'
import './styles/bench.css'
import './styles/compare.css'

const root = document.getElementById('root')
if (!root) throw new Error('index.html has no #root')
createRoot(root).render(
  <StrictMode>
    <App />
  </StrictMode>,
)
