import { Menu } from '@mantine/core'
import { IconKeyboard, IconRoute, type Icon } from '@tabler/icons-react'
import { useTranslation } from 'react-i18next'
import { useNavigate, useParams } from 'react-router'
import { callGuide } from '../../state/guide.ts'
import { MoreButton } from './MoreButton.tsx'
import { IN_MENU, PLACE_ICONS, REFERENCES } from './places.ts'

interface Tool {
  readonly label: string
  readonly Icon: Icon
  readonly run: () => void
}

/** What the bar of a phone has no room for; it is open when it comes. */
export function RailMenu({ tools, onKeys }: { tools: readonly Tool[]; onKeys: () => void }) {
  const { t } = useTranslation()
  const go = useNavigate()
  const inTune = useParams().id !== undefined
  return (
    <Menu position="top-end" width={240} defaultOpened>
      <Menu.Target>
        <MoreButton />
      </Menu.Target>
      <Menu.Dropdown>
        {(inTune ? REFERENCES : IN_MENU).map((place) => {
          const Icon = PLACE_ICONS[place]
          return (
            <Menu.Item key={place} leftSection={<Icon size={17} />} onClick={() => void go(`/${place}`)}>
              {t(`rail.${place}`)}
            </Menu.Item>
          )
        })}
        {tools.map(({ label, Icon, run }) => (
          <Menu.Item key={label} leftSection={<Icon size={17} />} onClick={run}>
            {label}
          </Menu.Item>
        ))}
        <Menu.Item leftSection={<IconKeyboard size={17} />} onClick={onKeys}>
          {t('keys.title')}
        </Menu.Item>
        <Menu.Item leftSection={<IconRoute size={17} />} onClick={callGuide}>
          {t('guide.call')}
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
}
