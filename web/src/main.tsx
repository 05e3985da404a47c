import { present } from '@velvet-porch/core/invariant'
import '@mantine/core/styles.css'
import '@mantine/notifications/styles.css'
import '@mantine/spotlight/styles.css'
import '@fontsource-variable/fraunces/wght.css'
import '@fontsource-variable/figtree/wght.css'
import '@fontsource/fira-mono/500.css'
import './app/look.css'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { App } from './app/App.tsx'
import './texts/i18n.ts'

createRoot(present(document.getElementById('root'))).render(
  <StrictMode>
    <App />
  </StrictMode>,
)
