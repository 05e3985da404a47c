import { Suspense, useCallback, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Outlet, useLocation } from 'react-router'
import { Guide } from './guide/Guide.tsx'
import { VersionNotice } from './offline/VersionNotice.tsx'
import { PageTitle } from './PageTitle.tsx'
import { Keys, type Finding } from './palette/Keys.tsx'
import { usePlaceActions } from './palette/usePlaceActions.ts'
import { onceOpened } from '../ui/onceOpened.tsx'
import { placeOf } from './rail/places.ts'
import { Rail } from './rail/Rail.tsx'
import { StorageNotice } from './StorageNotice.tsx'
import { useBackupCare } from './useBackupCare.ts'
import { WorkLine } from './WorkLine.tsx'
import css from './Porch.module.css'

const HelpDialog = onceOpened(async () => (await import('./HelpDialog.tsx')).HelpDialog)

/** The frame of every stage: the rail on the left, the stage on the right. */
export function Porch() {
  const { t } = useTranslation()
  const stage = useRef<HTMLElement>(null)
  const [over, setOver] = useState<'help' | Finding>()
  const place = placeOf(useLocation().pathname)
  const openHelp = useCallback(() => setOver('help'), [])
  usePlaceActions(openHelp)
  useBackupCare()
  /** To the sheet, where the stage has one; to the stage itself where it has none. */
  const skip = () => {
    const sheet = stage.current?.querySelector<HTMLElement>('[data-sheet][tabindex]')
    ;(sheet ?? stage.current)?.focus()
  }
  return (
    <div className={css.porch}>
      <PageTitle />
      <button type="button" className={css.skip} onClick={skip}>
        {t('app.skip')}
      </button>
      <Rail onHelp={openHelp} onFind={setOver} />
      <main id="stage" ref={stage} className={css['stage-page']} tabIndex={-1}>
        <WorkLine />
        <Guide />
        <StorageNotice />
        <VersionNotice />
        <div className={css['stage-room']}>
          {/* Until a stage's code is here, the page before it stays. */}
          <Suspense>
            <Outlet />
          </Suspense>
        </div>
      </main>
      <Keys shown={over === 'help' ? undefined : over} onShow={setOver} />
      <HelpDialog
        place={place}
        opened={over === 'help'}
        onClose={() => setOver(undefined)}
        onKeys={() => setOver('keys')}
      />
    </div>
  )
}
