/* global document */
// What a page costs that is React and Bootstrap and nothing of ours: the floor of the first load.
import 'bootstrap/dist/css/bootstrap.min.css'
import { createElement, StrictMode } from 'react'
import { Button } from 'react-bootstrap'
import { createRoot } from 'react-dom/client'

createRoot(document.getElementById('root')).render(createElement(StrictMode, null, createElement(Button, null, 'one')))
