import { MantineProvider } from '@mantine/core'
import { render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { MemoryRouter, Route, Routes } from 'react-router'

/** A part of a page by itself: theme, address and texts as the app has them; menus stand still. */
export const inPage = (
  part: ReactNode,
  { path = '/', at = path }: { readonly path?: string; readonly at?: string } = {},
) =>
  render(
    <MantineProvider env="test">
      <MemoryRouter initialEntries={[at]}>
        <Routes>
          <Route path={path} element={part} />
          <Route path="*" element={<div data-testid="elsewhere" />} />
        </Routes>
      </MemoryRouter>
    </MantineProvider>,
  )
