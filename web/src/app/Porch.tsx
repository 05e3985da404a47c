import { useCallback, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Outlet, useLocation } from 'react-router'
import { Guide } from './guide/Guide.tsx'
import { VersionNotice } from './offline/VersionNotice.tsx'
import { HelpDialog } from './HelpDialog.tsx'
import { PageTitle } from './PageTitle.tsx'
import { Keys } from './palette/Keys.tsx'
import { usePlaceActions } from './palette/usePlaceActions.ts'
import { placeOf } from './rail/places.ts'
import { Rail } from './rail/Rail.tsx'
import { StorageNotice } from './StorageNotice.tsx'
import { useBackupCare } from './useBackupCare.ts'
import { WorkLine } from './WorkLine.tsx'
import css from './Porch.module.css'

/** The frame of every stage: the rail on the left, the stage on the right. */
export function Porch() {
  const { t } = useTranslation()
  const stage = useRef<HTMLElement>(null)
  const [help, setHelp] = useState(false)
  const [keys, setKeys] = useState(false)
  const place = placeOf(useLocation().pathname)
  const openHelp = useCallback(() => setHelp(true), [])
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
      <Rail onHelp={openHelp} onKeys={() => setKeys(true)} />
      <main id="stage" ref={stage} className={css['stage-page']} tabIndex={-1}>
        <WorkLine />
        <Guide />
        <StorageNotice />
        <VersionNotice />
        <div className={css['stage-room']}>
          <Outlet />
        </div>
      </main>
      <Keys listed={keys} onListed={setKeys} />
      <HelpDialog
        place={place}
        opened={help}
        onClose={() => setHelp(false)}
        onKeys={() => {
          setHelp(false)
          setKeys(true)
        }}
      />
    </div>
  )
}
