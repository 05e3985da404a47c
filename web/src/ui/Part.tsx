import { Alert, Button } from '@mantine/core'
import type { ReactNode } from 'react'
import { ErrorBoundary } from 'react-error-boundary'
import { useTranslation } from 'react-i18next'

/** What a part of the page is, in the catalogue. */
export type PartName = 'head' | 'sheet' | 'side' | 'player'

/**
 * A part of the page that fails by itself: the others go on. It is shown again where what it shows has changed, or on
 * request.
 * @param of what it shows
 */
export function Part({
  name,
  of,
  children,
}: {
  readonly name: PartName
  readonly of: readonly unknown[]
  readonly children: ReactNode
}) {
  return (
    <ErrorBoundary
      resetKeys={[...of]}
      fallbackRender={({ error, resetErrorBoundary }) => (
        <Failed name={name} error={error} onAgain={resetErrorBoundary} />
      )}
    >
      {children}
    </ErrorBoundary>
  )
}

function Failed({ name, error, onAgain }: { name: PartName; error: unknown; onAgain: () => void }) {
  const { t } = useTranslation()
  const reason = error instanceof Error ? error.message : String(error)
  return (
    <Alert color="red" title={t(`error.part.${name}`)} m="xs" role="alert">
      {t('error.partText', { reason })}{' '}
      <Button size="compact-sm" ml="sm" onClick={onAgain}>
        {t('error.again')}
      </Button>
    </Alert>
  )
}
